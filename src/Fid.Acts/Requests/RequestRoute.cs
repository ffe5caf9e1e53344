using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Requests;
using NodaTime;

namespace Fid.Acts.Requests;

/// <summary>Who has to agree to what somebody asks for.</summary>
public sealed class RequestRoute(FidDb db, RecordApprovals approvals)
{
    /// <summary>The steps; and the addresses that whoever asks could change without anybody.</summary>
    /// <param name="account">The account of who asks.</param>
    /// <param name="asker">What they may of the record.</param>
    public async Task<RoutedRequest> OfAsync(AskedRecord of, ReadRequest read, Guid account, FieldRights asker, LocalDate today, CancellationToken cancellation)
    {
        var changes = await approvals.ChangesAsync(of.Fields, read.Followed!, cancellation);
        var book = await ApproverBook.LoadAsync(db, of.Fields, [of.Record], [account], [], today, cancellation);
        var entered = read.Entered!.Edits.Select(e => e.Field).ToHashSet(StringComparer.Ordinal);
        // What rules of the record set is not for whoever asks to be let or kept from.
        string[] mayNot = [.. changes.Select(c => c.Field).Where(f => entered.Contains(f) && !asker.MayEdit(f))];
        var distances = await PayDistances.LoadAsync(db, of.Fields.Approvals, [of.Employment.Id], today, cancellation);
        var conditions = PayDistances.Read(distances, of.Employment.Id, read.Followed!.Held, changes);
        var route = book.Route(new AskedChange(account, of.Record, changes, conditions), mayNot);
        return new RoutedRequest(
            [.. route.Steps.Select(s => new RequestStep(s.Rule, s.Choice.ToString(), s.Fields))],
            [.. route.Steps.Select(s => s.Who)],
            [.. route.Direct.Where(entered.Contains)],
            book
        );
    }
}

/// <summary>Who has to agree.</summary>
/// <param name="Steps">One step after the other.</param>
/// <param name="Who">Who would be asked by each as things are: their ids in the book.</param>
/// <param name="Direct">What could be saved without anybody.</param>
public sealed record RoutedRequest(IReadOnlyList<RequestStep> Steps, IReadOnlyList<IReadOnlyList<string>> Who, IReadOnlyList<string> Direct, ApproverBook Book);
