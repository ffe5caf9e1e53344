using Fid.Core.Fields;

namespace Fid.Core.Rights;

/// <summary>What somebody may do by the roles they hold, taken together: rights only ever add up.</summary>
public sealed class HeldRights
{
    private readonly RoleSet _set;
    private readonly CompiledRole[] _held;

    private HeldRights(RoleSet set, CompiledRole[] held)
    {
        (_set, _held) = (set, held);
        foreach (var role in held)
        {
            Reach |= role.Fields;
            foreach (var right in role.Rights)
                Reach |= right.Reach;
        }
    }

    /// <summary>The rights of somebody who holds roles of a set; one that is not in it gives nothing.</summary>
    public static HeldRights Of(RoleSet set, IEnumerable<string> roles) =>
        new(set, [.. roles.Distinct(StringComparer.Ordinal).Select(set.Compiled).OfType<CompiledRole>()]);

    /// <summary>No rights.</summary>
    public static HeldRights None { get; } = Of(RoleSet.Shipped, []);

    /// <summary>The roles and reaches they are given by.</summary>
    public RoleSet Set => _set;

    /// <summary>Every reach by which something is given.</summary>
    public ReachSet Reach { get; }

    /// <summary>The reaches of the people who are listed, found and counted: those whose record or hire may be seen. Of somebody who sees at most
    /// their own, oneself and those for whom one has a task; everybody, where nobody is reached at all.</summary>
    public ReachSet Reached
    {
        get
        {
            var reached = Where(Right.See, Things.Record) | Where(Right.See, Things.Hire);
            if (reached.Places().Any(place => _set.Reaches[place] is not RightReach.Self))
                return reached;
            foreach (var place in Reach.Places())
                if (_set.Reaches[place] is RightReach.Self or RightReach.Tasks)
                    reached |= ReachSet.At(place);
            return reached.IsEmpty ? ReachSet.At(RoleSet.AllPlace) : reached;
        }
    }

    /// <summary>Whether something may be done with a thing, to anybody at all.</summary>
    public bool May(string action, string thing) => !Where(action, thing).IsEmpty;

    /// <summary>Whether something may be done with a thing of somebody.</summary>
    /// <param name="target">The reaches by which they are reached.</param>
    public bool May(string action, string thing, ReachSet target) => Where(action, thing).Overlaps(target);

    /// <summary>Whether something may be done with a thing whomever it is of.</summary>
    public bool MayToAll(string action, string thing) => Where(action, thing).Has(RoleSet.AllPlace);

    /// <summary>The reaches by which something may be done with a thing.</summary>
    public ReachSet Where(string action, string thing) => Where(action, new RightSubject(thing, null));

    /// <summary>The reaches by which a field may be seen, or edited, at least.</summary>
    public ReachSet Where(FieldDefinition field, FieldAccess least)
    {
        var reach = Where(ActionOf(least), field);
        foreach (var role in _held)
            if (field.AccessOf(role.Definition.Id) >= least)
                reach |= role.Fields;
        return reach;
    }

    /// <summary>Whether somebody is reached by a reach of this set, wherever one of others reaches them.</summary>
    public static bool Covers(ReachSet these, ReachSet others) => these.Has(RoleSet.AllPlace) || these.Contains(others);

    /// <summary>What may be done with each field whichever of the people is meant whom certain reaches reach.</summary>
    public FieldRights OnAll(FieldSet fields, ReachSet people) => FieldRights.Of(fields, f => Covers(Where(f, FieldAccess.Edit), people) ? FieldAccess.Edit
            : Covers(Where(f, FieldAccess.Ask), people) ? FieldAccess.Ask
            : Covers(Where(f, FieldAccess.View), people) ? FieldAccess.View
            : FieldAccess.None);

    /// <summary>What may be done with each field of somebody's record.</summary>
    /// <param name="fields">The fields of records.</param>
    /// <param name="target">The reaches by which they are reached.</param>
    public FieldRights On(FieldSet fields, ReachSet target)
    {
        var named = _held.Where(r => r.Fields.Overlaps(target)).Select(r => r.Definition.Id).ToArray();
        var more = _held.SelectMany(r => r.OfFields).Where(r => r.Reach.Overlaps(target)).Select(r => r.Right).ToArray();
        return FieldRights.Of(fields, f =>
            more.Length == 0 ? f.AccessOf(named) : (FieldAccess)Math.Max((int)f.AccessOf(named), (int)more.Select(r => AccessBy(r, f)).DefaultIfEmpty().Max())
        );
    }

    /// <summary>Every right because of which a field may be seen, or edited, in the order of roles,
    /// then of rights: those the field itself gives first.</summary>
    /// <param name="target">The reaches by which the record is reached.</param>
    public IReadOnlyList<GrantedRight> Explain(FieldDefinition field, FieldAccess least, ReachSet target)
    {
        var action = ActionOf(least);
        return
        [
            .. _held.SelectMany(role =>
                (field.AccessOf(role.Definition.Id) >= least ? role.Fields.Places().Where(target.Has) : [])
                    .Select(place => new Right(ActionOf(field.AccessOf(role.Definition.Id)), field.Key, _set.Reaches[place]))
                    .Concat(role.OfFields.Where(r => r.Reach.Overlaps(target) && Covers(r.Right, action, field)).Select(r => r.Right))
                    .Select(right => new GrantedRight(role.Definition.Id, right))
            ),
        ];
    }

    /// <summary>Every right because of which something may be done with a thing, in the order of roles, then of rights.</summary>
    /// <param name="target">The reaches by which the person is reached whose thing it is.</param>
    public IReadOnlyList<GrantedRight> Explain(string action, string thing, ReachSet target) =>
        [
            .. _held.SelectMany(role =>
                role.Rights.Where(r => r.Reach.Overlaps(target) && r.Right.Covers(action, new RightSubject(thing, null)))
                    .Select(r => new GrantedRight(role.Definition.Id, r.Right))
            ),
        ];

    private ReachSet Where(string action, RightSubject subject)
    {
        var reach = ReachSet.None;
        foreach (var role in _held)
        foreach (var right in role.Rights)
            if (right.Right.Covers(action, subject))
                reach |= right.Reach;
        return reach;
    }

    private ReachSet Where(string action, FieldDefinition field)
    {
        var reach = ReachSet.None;
        foreach (var role in _held)
        foreach (var right in role.OfFields)
            if (Covers(right.Right, action, field))
                reach |= right.Reach;
        return reach;
    }

    private static FieldAccess AccessBy(Right right, FieldDefinition field) =>
        Covers(right, Right.Edit, field) ? FieldAccess.Edit
        : Covers(right, Right.Ask, field) ? FieldAccess.Ask
        : Covers(right, Right.See, field) ? FieldAccess.View
        : FieldAccess.None;

    private static string ActionOf(FieldAccess access) =>
        access switch
        {
            FieldAccess.Edit => Right.Edit,
            FieldAccess.Ask => Right.Ask,
            _ => Right.See,
        };

    // A right to rows is one to all that stands in them. Who may ask for a field sees it, and who may edit it may ask for it.
    private static bool Covers(Right right, string action, FieldDefinition field) =>
        IsGivenBy(right, action, field)
        || (action == Right.Ask && IsGivenBy(right, Right.Edit, field))
        || (action == Right.See && IsGivenBy(right, Right.Ask, field));

    private static bool IsGivenBy(Right right, string action, FieldDefinition field) =>
        right.Covers(action, new RightSubject(field.Key, field.Section))
        || (field.IsColumn && right.Covers(action, new RightSubject(FieldAddress.Read(field.Key).Whole, null)));
}
