namespace Fid.Core.Rights;

/// <summary>A role as the firm defines it: what may be done by those it is granted to.</summary>
/// <param name="Id">By which it is granted, and by which fields name it.</param>
/// <param name="Labels">What it is called, by language.</param>
/// <param name="FieldReaches">Whom the role's part in the fields' own settings reaches: there it sees and edits what each field gives to it.</param>
/// <param name="Rights">What it gives besides, in order.</param>
public sealed record RoleDefinition(string Id, IReadOnlyDictionary<string, string> Labels, IReadOnlyList<RightReach> FieldReaches, IReadOnlyList<Right> Rights)
{
    /// <summary>The label in a language; English, or else the id, where there is none in it.</summary>
    public string Label(string language) => Labels.GetValueOrDefault(language) ?? Labels.GetValueOrDefault("en") ?? Id;

    /// <summary>Every reach it names, more than once where it names one so.</summary>
    public IEnumerable<RightReach> Reaches => FieldReaches.Concat(Rights.Select(r => r.Reach));
}

/// <summary>A group of people that the firm defines: those for whose records a formula holds.</summary>
/// <param name="Id">By which rights name it.</param>
/// <param name="Labels">What it is called, by language.</param>
/// <param name="When">The formula. One that cannot be computed, or reads a field that is empty, takes nobody in.</param>
/// <param name="Roles">The ids of the roles that are granted by rule to those who are in it, from their first day here to their last.</param>
public sealed record PeopleGroup(string Id, IReadOnlyDictionary<string, string> Labels, string When, IReadOnlyList<string> Roles)
{
    /// <summary>The label in a language; English, or else the id, where there is none in it.</summary>
    public string Label(string language) => Labels.GetValueOrDefault(language) ?? Labels.GetValueOrDefault("en") ?? Id;
}
