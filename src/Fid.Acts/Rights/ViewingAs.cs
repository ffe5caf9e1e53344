using Fid.Core.Fields;
using Fid.Core.Rights;

namespace Fid.Acts.Rights;

/// <summary>Whether somebody may look at Fid as somebody else does: they may not see by it what they may not see themselves.</summary>
public static class ViewingAs
{
    /// <summary>Whether one sees, whoever it is of, all that another sees of anybody.</summary>
    public static bool SeesAllOf(HeldRights one, HeldRights other, FieldSet fields) =>
        Things.Rights.All(r => !other.May(r.Action, r.Thing) || one.MayToAll(r.Action, r.Thing) || one.MayToAll(Right.See, r.Thing))
        && fields.FieldsAndColumns.All(f => other.Where(f, FieldAccess.View).IsEmpty || one.Where(f, FieldAccess.View).Has(RoleSet.AllPlace));
}
