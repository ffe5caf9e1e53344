namespace Fid.Core.Rights;

/// <summary>One right: what may be done, with what, and to whom.</summary>
/// <param name="Action">What may be done: "see", "edit", which gives "see" too, "approve", "export", or what else the firm names.</param>
/// <param name="On">A field's key, "section:" and a section's key, a thing such as "task", or <see cref="Everything"/>.</param>
/// <param name="Reach">Whom it reaches.</param>
public sealed record Right(string Action, string On, RightReach Reach)
{
    /// <summary>Every field and every thing.</summary>
    public const string Everything = "*";

    /// <summary>Before the key of a section: all fields of it.</summary>
    public const string OfSection = "section:";

    /// <summary>What gives a right to see as well.</summary>
    public const string Edit = "edit";

    /// <summary>Of a field: ask for it to be changed, seeing it as well. <see cref="Edit"/> gives it too.</summary>
    public const string Ask = "ask";

    /// <summary>What is given by <see cref="Edit"/> as well.</summary>
    public const string See = "see";

    /// <summary>Whether it lets somebody do something with something, leaving aside to whom.</summary>
    public bool Covers(string action, RightSubject subject) =>
        (Action == action || (action == See && Action == Edit))
        && (
            On == Everything
            || On == subject.Name
            || (subject.Section is { } section && On.StartsWith(OfSection, StringComparison.Ordinal) && On[OfSection.Length..] == section)
        );
}

/// <summary>What somebody would do something with.</summary>
/// <param name="Name">The key of a field, or the name of a thing.</param>
/// <param name="Section">Of a field, the key of its section.</param>
public readonly record struct RightSubject(string Name, string? Section)
{
    /// <summary>As it is written: the name, and behind @ the section.</summary>
    public static RightSubject Read(string text) =>
        text.LastIndexOf('@') is var at and > 0 ? new RightSubject(text[..at], text[(at + 1)..]) : new RightSubject(text, null);
}

/// <summary>Rights that somebody can be given together.</summary>
/// <param name="Id">By which it is granted.</param>
/// <param name="Rights">The rights, in their order.</param>
public sealed record Role(string Id, IReadOnlyList<Right> Rights);

/// <summary>A role given to somebody for a time.</summary>
/// <param name="Person">To whom.</param>
/// <param name="Role">The role's id.</param>
/// <param name="From">The first day, included; null for ever before.</param>
/// <param name="To">The last day, included; null for ever after.</param>
public sealed record RoleGrant(string Person, string Role, NodaTime.LocalDate? From, NodaTime.LocalDate? To)
{
    /// <summary>Whether it counts on a day.</summary>
    public bool Counts(NodaTime.LocalDate day) => !(From > day) && !(To < day);
}

/// <summary>A right that somebody has, and the role it comes from.</summary>
public sealed record GrantedRight(string Role, Right Right);
