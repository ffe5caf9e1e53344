using System.Text.Json;
using Fid.Core.Approvals;
using Fid.Core.Fields;
using NodaTime;

namespace Fid.Acts.Fields;

/// <summary>The approvals that are live.</summary>
/// <param name="All">As they are configured, in order.</param>
/// <param name="Rules">The same, with their formulas read.</param>
public sealed record LiveApprovals(IReadOnlyList<FieldApproval> All, IReadOnlyList<ApprovalRule> Rules)
{
    /// <summary>Nobody is asked.</summary>
    public static LiveApprovals None { get; } = new([], []);

    public static LiveApprovals Of(IReadOnlyList<FieldApproval> all) => all.Count == 0 ? None : new(all, [.. all.Select(ApprovalRule.Of)]);

    /// <summary>Whether any of them asks for somebody's agreement to a change.</summary>
    /// <param name="change">What is changed, at one address.</param>
    /// <param name="values">What the record holds, by address: what the formulas read.</param>
    /// <param name="today">The firm's day, which the formulas may read.</param>
    public bool Asks(RequestedChange change, IReadOnlyDictionary<string, JsonElement> values, LocalDate today) => Rules.Any(r => r.Asks(change, values, today));

    /// <summary>The approval with an id, as it is configured now; null where there is none any more.</summary>
    public FieldApproval? Find(string id) => All.FirstOrDefault(a => a.Id == id);
}
