using System.Text.Json;
using Fid.Core.Formulas;
using NodaTime;

namespace Fid.Core.Rights;

/// <summary>All roles there are, those that ship first, with the groups they speak of; each different reach has its place.</summary>
public sealed class RoleSet
{
    /// <summary>The place of <see cref="RightReach.All"/>.</summary>
    public const int AllPlace = 0;

    private readonly Dictionary<string, CompiledRole> _roles = new(StringComparer.Ordinal);
    private readonly (string Group, RecordFormula? Formula)[] _formulas;
    private readonly List<RightReach> _reaches = [new RightReach.All()];
    private readonly Dictionary<RightReach, int> _places = new() { [new RightReach.All()] = AllPlace };

    /// <summary>Takes in the firm's own roles and groups, beside the roles that ship.</summary>
    /// <param name="configuration">One in which <see cref="RightsCheck.Of"/> finds nothing: of more different reaches than
    /// <see cref="ReachSet.Most"/> the last would reach nobody.</param>
    public RoleSet(RightsConfiguration configuration)
    {
        _formulas = [.. configuration.Groups.Select(g => (g.Id, RecordFormula.Read(g.When).Formula))];
        Roles = [.. ShippedRoles.All, .. configuration.Roles];
        Groups = configuration.Groups;
        SecondFactor = configuration.SecondFactor;
        foreach (var role in Roles)
            _roles.TryAdd(role.Id, new CompiledRole(role, Places(role.FieldReaches), [.. role.Rights.Select(r => new PlacedRight(r, Places([r.Reach])))]));
    }

    /// <summary>The roles that ship, and no others.</summary>
    public static RoleSet Shipped { get; } = new(RightsConfiguration.Empty);

    /// <summary>The roles, those that ship first.</summary>
    public IReadOnlyList<RoleDefinition> Roles { get; }

    /// <summary>The firm's groups.</summary>
    public IReadOnlyList<PeopleGroup> Groups { get; }

    /// <summary>The roles whose holders prove by a second factor who they are.</summary>
    public IReadOnlyList<string> SecondFactor { get; }

    /// <summary>The different reaches, by their places.</summary>
    public IReadOnlyList<RightReach> Reaches => _reaches;

    /// <summary>The roles whose holders can give roles and invite others: of them one has to stay.</summary>
    public IReadOnlyList<string> Administering =>
        [
            .. Roles
                .Where(r => HeldRights.Of(this, [r.Id]) is var held && held.MayToAll(Actions.Grant, Things.Role) && held.MayToAll(Right.Edit, Things.Account))
                .Select(r => r.Id),
        ];

    /// <summary>The role with an id, or null.</summary>
    public RoleDefinition? Find(string id) => _roles.GetValueOrDefault(id)?.Definition;

    /// <summary>Whether a role is held by rule alone, and so is granted to nobody.</summary>
    public static bool IsByRuleAlone(string id) => id == ShippedRoles.Staff;

    /// <summary>Whether a role or a group goes by a field: gives a right to it, or takes people in by it.</summary>
    public bool GoesBy(string field) =>
        Roles.Any(r => r.Rights.Any(right => right.On == field && Things.Find(right.Action, right.On) is null))
        || _formulas.Any(f => f.Formula?.Names.Contains(field) == true);

    /// <summary>The groups that somebody belongs to by what their record says, in the order of the groups.</summary>
    /// <param name="values">The values of the record that are there, by field.</param>
    /// <param name="day">The day for which the record is taken.</param>
    public string[] GroupsOf(IReadOnlyDictionary<string, JsonElement> values, LocalDate day) =>
        _formulas.Length == 0 ? [] : [.. _formulas.Where(f => f.Formula is { } formula && GroupFormula.Holds(formula, values, day)).Select(f => f.Group)];

    /// <summary>The roles that somebody holds by rule: those of their groups, in the order of the groups, then that of everybody here.</summary>
    /// <param name="groups">The groups they are in.</param>
    /// <param name="worksHere">Whether they are employed on the day.</param>
    public IEnumerable<RoleByRule> ByRule(IReadOnlyCollection<string> groups, bool worksHere)
    {
        var ruled = Groups.Where(g => groups.Contains(g.Id)).SelectMany(g => g.Roles.Select(r => new RoleByRule(r, g.Id)));
        return worksHere ? ruled.Append(new RoleByRule(ShippedRoles.Staff, null)) : ruled;
    }

    internal CompiledRole? Compiled(string id) => _roles.GetValueOrDefault(id);

    private ReachSet Places(IEnumerable<RightReach> reaches)
    {
        var set = ReachSet.None;
        foreach (var reach in reaches)
        {
            if (!_places.TryGetValue(reach, out var place))
            {
                if (_reaches.Count == ReachSet.Most)
                    continue;
                _places[reach] = place = _reaches.Count;
                _reaches.Add(reach);
            }
            set |= ReachSet.At(place);
        }
        return set;
    }
}

/// <summary>A role that somebody holds by rule.</summary>
/// <param name="Group">The group because of which; null for the role of everybody who works here.</param>
public sealed record RoleByRule(string Role, string? Group);

/// <summary>A role with its reaches as places.</summary>
internal sealed record CompiledRole(RoleDefinition Definition, ReachSet Fields, IReadOnlyList<PlacedRight> Rights)
{
    /// <summary>Those of its rights that can be about fields.</summary>
    public IReadOnlyList<PlacedRight> OfFields { get; } = [.. Rights.Where(r => r.IsOfFields)];
}

/// <summary>A right, and the place of its reach.</summary>
internal sealed record PlacedRight(Right Right, ReachSet Reach)
{
    /// <summary>Whether it can be about fields. A field can have the key of a thing: what is given for the thing says nothing of the field.</summary>
    public bool IsOfFields { get; } = Things.Find(Right.Action, Right.On) is null;
}
