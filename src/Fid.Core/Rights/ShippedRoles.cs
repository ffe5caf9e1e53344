namespace Fid.Core.Rights;

/// <summary>The roles that ship with Fid. A firm adds its own beside them; these are as they are, so that no change of rights can leave it
/// without an administrator.</summary>
public static class ShippedRoles
{
    /// <summary>Opens hires, changes records, sees everybody.</summary>
    public const string Coordinator = "coordinator";

    /// <summary>May everything that can be given.</summary>
    public const string Administrator = "administrator";

    /// <summary>Reads every record, and looks after pay.</summary>
    public const string Payroll = "payroll";

    /// <summary>Sees the records of those who report to them.</summary>
    public const string Manager = "manager";

    /// <summary>Does the tasks of their teams.</summary>
    public const string Owner = "owner";

    /// <summary>Does their own tasks, and sees their own facts.</summary>
    public const string Newcomer = "newcomer";

    /// <summary>Held by rule by everybody who works here, from their first day to their last, and granted to nobody: sees their own record,
    /// and asks for facts of their own to be changed.</summary>
    public const string Staff = "staff";

    private static readonly RightReach Everybody = new RightReach.All(),
        Oneself = new RightReach.Self(),
        DirectReports = new RightReach.Direct(),
        ThoseWithTasks = new RightReach.Tasks();

    // What an administrator alone does: who may sign in and do what, and what connects Fid with the world.
    private static readonly string[] Administering = [Things.Account, Things.Role, Things.Connection, Things.Work, Things.Trail];

    /// <summary>All of them.</summary>
    public static IReadOnlyList<RoleDefinition> All { get; } =
    [
        Of(Coordinator, "Coordinator", "Koordination", [Everybody], [.. Things.Rights.Where(IsOfCoordinators).Select(ToAll)]),
        Of(Administrator, "Administrator", "Verwaltung", [Everybody], [.. Things.Rights.Select(ToAll)]),
        Of(
            Payroll,
            "Payroll clerk",
            "Lohnbüro",
            [Everybody],
            [
                See(Things.Record, Everybody),
                See(Things.Hire, Everybody),
                See(Things.People, Everybody),
                See(Things.Pay, Everybody),
                new Right(Actions.Edit, Things.Pay, Everybody),
                new Right(Actions.Export, Things.People, Everybody),
                See(Things.Template, Everybody),
                See(Things.List, Everybody),
            ]
        ),
        Of(Manager, "Manager", "Führung", [DirectReports, ThoseWithTasks], [See(Things.Record, DirectReports), See(Things.Hire, DirectReports)]),
        Of(Owner, "Task owner", "Aufgaben", [ThoseWithTasks], []),
        Of(Newcomer, "Newcomer", "Neue", [Oneself, ThoseWithTasks], [See(Things.Record, Oneself)]),
        Of(Staff, "Everybody here", "Alle hier", [Oneself], [See(Things.Record, Oneself)]),
    ];

    /// <summary>Whether a role with this id ships with Fid.</summary>
    public static bool Has(string id) => All.Any(r => r.Id == id);

    // Who enters pay does not check it as well.
    private static bool IsOfCoordinators(KnownRight right) => !Administering.Contains(right.Thing) && right is not { Action: Actions.Edit, Thing: Things.Pay };

    private static Right ToAll(KnownRight right) => new(right.Action, right.Thing, Everybody);

    private static Right See(string thing, RightReach reach) => new(Actions.See, thing, reach);

    private static RoleDefinition Of(string id, string english, string german, IReadOnlyList<RightReach> fields, IReadOnlyList<Right> rights) =>
        new(id, new Dictionary<string, string> { ["en"] = english, ["de"] = german }, fields, rights);
}
