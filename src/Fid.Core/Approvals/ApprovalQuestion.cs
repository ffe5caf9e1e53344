using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Core.Formulas;
using Fid.Core.Json;
using NodaTime;

namespace Fid.Core.Approvals;

/// <summary>What is asked for, and what it takes to know who has to agree.</summary>
/// <param name="Today">The day on which it is asked.</param>
/// <param name="People">All who can be asked or stand above somebody.</param>
/// <param name="Rules">Who is asked about what, in their order.</param>
public sealed record ApprovalQuestion(LocalDate Today, IReadOnlyList<Approver> People, IReadOnlyList<ApprovalRule> Rules, ChangeRequest Request);

/// <summary>Somebody who may be asked.</summary>
/// <param name="Manager">The id of their manager; null for none.</param>
/// <param name="Roles">The roles they have.</param>
/// <param name="Away">When they are away.</param>
public sealed record Approver(string Id, string? Manager, IReadOnlyList<string> Roles, IReadOnlyList<Absence> Away);

/// <summary>Who has to agree to changes of some fields.</summary>
/// <param name="Fields">The keys of the fields.</param>
/// <param name="When">A formula over "old", "new" and the record's values; null for always.</param>
/// <param name="By">Who has to agree, one after the other.</param>
public sealed record ApprovalRule(string Id, IReadOnlyList<string> Fields, RecordFormula? When, IReadOnlyList<ApproverChoice> By)
{
    /// <summary>The rule of an approval as a configuration has it. Throws for one that <see cref="ApprovalCheck"/> would not let through.</summary>
    public static ApprovalRule Of(FieldApproval approval) =>
        new(
            approval.Id,
            approval.Fields,
            approval.When is { } when ? RecordFormula.Read(when).Formula ?? throw new ArgumentException(when, nameof(approval)) : null,
            [.. approval.By.Select(by => ApproverChoice.Read(by) ?? throw new ArgumentException(by, nameof(approval)))]
        );

    /// <summary>Whether it asks about a change: not about one that changes nothing, nor where its formula does not hold.</summary>
    /// <param name="change">The change.</param>
    /// <param name="values">The values of the record as they are.</param>
    /// <param name="today">The day on which it is asked.</param>
    public bool Asks(RequestedChange change, IReadOnlyDictionary<string, JsonElement> values, LocalDate today)
    {
        if (change.IsNone || !FieldApproval.IsAbout(Fields, change.Field))
            return false;
        return When is null || When.Holds(new FormulaFacts(ValueOf, today, WorkCalendar.EveryDay));

        object? ValueOf(string name) =>
            FieldValues.FromJson(
                name switch
                {
                    ApprovalCheck.Old => change.Old,
                    ApprovalCheck.New => change.New,
                    _ => values.TryGetValue(name, out var value) ? value : null,
                }
            );
    }
}

/// <summary>How those who have to agree are found.</summary>
/// <param name="Kind">By what.</param>
/// <param name="Name">The role, or the id of the person; null for managers.</param>
public readonly record struct ApproverChoice(ApproverKind Kind, string? Name)
{
    private const string OfRole = "role:",
        OfPerson = "person:";

    /// <summary>It as it is written: "manager", "manager2", "role:" and a role, "person:" and an id; null for anything else.</summary>
    public override string ToString() =>
        Kind switch
        {
            ApproverKind.Manager => "manager",
            ApproverKind.ManagersManager => "manager2",
            ApproverKind.Role => OfRole + Name,
            _ => OfPerson + Name,
        };

    /// <inheritdoc cref="ToString"/>
    public static ApproverChoice? Read(string text) =>
        text switch
        {
            "manager" => new ApproverChoice(ApproverKind.Manager, null),
            "manager2" => new ApproverChoice(ApproverKind.ManagersManager, null),
            _ when text.StartsWith(OfRole, StringComparison.Ordinal) && text.Length > OfRole.Length => new ApproverChoice(
                ApproverKind.Role,
                text[OfRole.Length..]
            ),
            _ when text.StartsWith(OfPerson, StringComparison.Ordinal) && text.Length > OfPerson.Length => new ApproverChoice(
                ApproverKind.Person,
                text[OfPerson.Length..]
            ),
            _ => null,
        };
}

/// <summary>By what those who have to agree are found.</summary>
public enum ApproverKind
{
    /// <summary>The manager of whom it is about.</summary>
    Manager,

    /// <summary>The manager of that manager, whoever acts for them.</summary>
    ManagersManager,

    /// <summary>Everybody who has a role.</summary>
    Role,

    /// <summary>One person.</summary>
    Person,
}

/// <summary>Changes of one record that somebody asks for.</summary>
/// <param name="By">The id of who asks.</param>
/// <param name="Person">The id of whom it is about.</param>
/// <param name="Values">The values of the record as they are.</param>
public sealed record ChangeRequest(string By, string Person, IReadOnlyList<RequestedChange> Changes, IReadOnlyDictionary<string, JsonElement> Values);

/// <summary>A change of one field.</summary>
/// <param name="Old">What the record holds; the JSON value null for nothing.</param>
/// <param name="New">What it is to hold; the JSON value null for nothing.</param>
public sealed record RequestedChange(string Field, JsonElement Old, JsonElement New)
{
    /// <summary>A change of a field to or from a value that may not be there.</summary>
    public static RequestedChange Of(string field, JsonElement? old, JsonElement? wanted) => new(field, old ?? JsonValues.Null, wanted ?? JsonValues.Null);

    /// <summary>Whether it changes nothing. Values are compared as values: 17.4 and 17.40 are the same, and so are two that are empty.</summary>
    public bool IsNone => JsonElement.DeepEquals(Old, New) || (FieldValues.IsEmpty(Old) && FieldValues.IsEmpty(New));
}
