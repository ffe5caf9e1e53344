namespace Fid.Core.Fields.Shipped;

/// <summary>What shipped fields have in common.</summary>
internal static class ShippedField
{
    /// <summary>The coordinator and the administrator edit it; payroll and managers see it.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> ForWork = Access(FieldAccess.View, FieldAccess.View);

    /// <summary>As <see cref="ForWork"/>, and whoever has a task for the newcomer sees it.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> ForTasks = WithOwner(ForWork);

    /// <summary>As <see cref="ForTasks"/>, and managers ask for it to be changed.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> AskedFor = WithOwner(Access(FieldAccess.View, FieldAccess.Ask));

    /// <summary>As <see cref="ForWork"/>, and managers ask for it to be changed.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> AskedForWork = Access(FieldAccess.View, FieldAccess.Ask);

    /// <summary>As <see cref="ForWork"/>, and the newcomer fills it in.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> OfOwn = Access(FieldAccess.View, FieldAccess.View, FieldAccess.Edit);

    /// <summary>As <see cref="OfOwn"/>, and whoever has a task for the newcomer sees it.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> Known = WithOwner(OfOwn);

    /// <summary>As <see cref="ForTasks"/>, and whose it is asks for it to be changed.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> OwnName = WithOwner(Access(FieldAccess.View, FieldAccess.View, FieldAccess.Ask));

    /// <summary>As <see cref="ForWork"/>, but no manager sees it, and whose it is asks for it to be changed.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> OwnProof = Access(FieldAccess.View, FieldAccess.None, FieldAccess.Ask);

    /// <summary>As <see cref="OfOwn"/>, but no manager sees it.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> Private = Access(FieldAccess.View, FieldAccess.None, FieldAccess.Edit);

    /// <summary>Payroll edits it too; managers ask for it to be changed.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> ForPay = Access(FieldAccess.Edit, FieldAccess.Ask);

    /// <summary>Payroll edits it too; no manager sees it.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> PayOnly = Access(FieldAccess.Edit, FieldAccess.None);

    /// <summary>As <see cref="PayOnly"/>, and whose it is asks for it to be changed.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> OwnPay = Access(FieldAccess.Edit, FieldAccess.None, FieldAccess.Ask);

    /// <summary>It follows from something else: nobody edits it.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> Follows = ShippedFields.Roles.ToDictionary(r => r, _ => FieldAccess.View);

    /// <summary>Of a column: what may be done with the rows.</summary>
    public static readonly IReadOnlyDictionary<string, FieldAccess> Same = new Dictionary<string, FieldAccess>();

    public static IReadOnlyDictionary<string, string> Labels(string english, string german) =>
        new Dictionary<string, string> { ["en"] = english, ["de"] = german };

    /// <summary>A fact of one stint.</summary>
    public static FieldDefinition Field(
        string section,
        string key,
        FieldType type,
        string english,
        string german,
        IReadOnlyDictionary<string, FieldAccess> access
    ) =>
        new()
        {
            Key = key,
            Type = type,
            Section = section,
            Labels = Labels(english, german),
            Access = access,
        };

    /// <summary>An entry of a list.</summary>
    public static FieldDefinition Entry(
        string section,
        string key,
        string list,
        string english,
        string german,
        IReadOnlyDictionary<string, FieldAccess> access
    ) => Field(section, key, FieldType.ListEntry, english, german, access) with { List = list };

    /// <summary>Any number of rows.</summary>
    public static FieldDefinition Rows(
        string section,
        string key,
        string english,
        string german,
        IReadOnlyDictionary<string, FieldAccess> access,
        params FieldDefinition[] columns
    ) => Field(section, key, FieldType.Rows, english, german, access) with { Columns = [.. columns.Select(c => c with { Section = "" })] };

    /// <summary>A fact of the person.</summary>
    public static FieldDefinition OfPerson(this FieldDefinition field) => field with { Of = FieldOwner.Person };

    public static FieldDefinition Taking(this FieldDefinition field, params FileGroup[] groups) => field with { Accepts = groups };

    public static FieldDefinition Always(this FieldDefinition field) => field with { Required = new Requirement(RequirementKind.Always) };

    public static FieldDefinition Needed(this FieldDefinition field, string stage) => field with { Required = Requirement.From(stage) };

    public static FieldDefinition Between(this FieldDefinition field, decimal min, decimal max) =>
        field with
        {
            Min = new FieldLimit(min, null),
            Max = new FieldLimit(max, null),
        };

    /// <summary>Kept sealed, and shown when somebody asks for it.</summary>
    public static FieldDefinition Sealed(this FieldDefinition field) => field with { Sensitive = true };

    public static FieldDefinition When(this FieldDefinition field, string formula) => field with { ShowWhen = formula };

    /// <summary>One or more of some options.</summary>
    public static FieldDefinition Of(this FieldDefinition field, params (string Value, string English, string German)[] options) =>
        field with
        {
            Options = [.. options.Select(o => new FieldOption(o.Value, Labels(o.English, o.German)))],
        };

    private static Dictionary<string, FieldAccess> WithOwner(IReadOnlyDictionary<string, FieldAccess> access) => new(access) { ["owner"] = FieldAccess.View };

    private static Dictionary<string, FieldAccess> Access(FieldAccess payroll, FieldAccess manager, FieldAccess newcomer = FieldAccess.View) =>
        new Dictionary<string, FieldAccess>
        {
            ["coordinator"] = FieldAccess.Edit,
            ["administrator"] = FieldAccess.Edit,
            ["payroll"] = payroll,
            ["manager"] = manager,
            ["newcomer"] = newcomer,
            // What newcomers may do with their own record, everybody may with theirs.
            ["staff"] = newcomer,
        };
}
