using System.Text.Json.Nodes;
using Fid.Core.Rights;
using Fid.Data.Rights;
using Fid.Server.People;
using NodaTime;

namespace Fid.Server.Admin;

/// <summary>Every role there is, and what can be given by one.</summary>
/// <param name="Version">The version of the firm's own roles that is live; 0 before the first.</param>
/// <param name="Configuration">The firm's own roles and groups, as the JSON Schema has them.</param>
/// <param name="Roles">All roles, those that ship first.</param>
/// <param name="Groups">The groups, with how many people are in each.</param>
/// <param name="Rights">Every right to a thing, in words.</param>
/// <param name="Sections">The sections of the record, with what each field itself gives to each role.</param>
/// <param name="Functions">The functions that formulas of groups can call.</param>
public sealed record RolesResponse(
    int Version,
    JsonObject Configuration,
    RightsDraftResponse? Draft,
    RoleResponse[] Roles,
    GroupResponse[] Groups,
    RightLabel[] Rights,
    RoleSection[] Sections,
    string[] Functions
);

/// <summary>A role.</summary>
/// <param name="Ships">Whether it ships with Fid, and stays as it is.</param>
/// <param name="Fields">Whom its part in the fields' own settings reaches.</param>
/// <param name="Holders">How many accounts hold it today, by grant or by rule.</param>
public sealed record RoleResponse(string Id, Labels Label, bool Ships, ReachResponse[] Fields, RightResponse[] Rights, int Holders);

/// <param name="People">How many of those who work here or will are in it.</param>
/// <param name="Roles">The roles its people have by rule.</param>
public sealed record GroupResponse(string Id, Labels Label, string When, string[] Roles, int People);

/// <param name="Do">What may be done.</param>
/// <param name="On">A field, a section, a thing, or everything.</param>
public sealed record RightResponse(string Do, string On, ReachResponse Reach)
{
    internal static RightResponse Of(Right right) => new(right.Action, right.On, ReachResponse.Of(right.Reach));
}

/// <summary>Whom a right reaches.</summary>
/// <param name="Code">The code of the site or department, or the id of the group; null for the others.</param>
public sealed record ReachResponse(ReachKind Kind, string? Code)
{
    internal static ReachResponse Of(RightReach reach) =>
        reach switch
        {
            RightReach.All => new(ReachKind.All, null),
            RightReach.Self => new(ReachKind.Self, null),
            RightReach.Direct => new(ReachKind.Direct, null),
            RightReach.Reports => new(ReachKind.Reports, null),
            RightReach.Tasks => new(ReachKind.Tasks, null),
            RightReach.Site(var code) => new(ReachKind.Site, code),
            RightReach.Department(var code) => new(ReachKind.Department, code),
            RightReach.Group(var id) => new(ReachKind.Group, id),
            _ => throw new ArgumentOutOfRangeException(nameof(reach)),
        };
}

/// <summary>The kinds of reaches.</summary>
public enum ReachKind
{
    /// <summary>Everybody.</summary>
    All,

    /// <summary>Oneself.</summary>
    Self,

    /// <summary>Those whose manager one is.</summary>
    Direct,

    /// <summary>Those below one, however deep.</summary>
    Reports,

    /// <summary>Those for whom one has a task.</summary>
    Tasks,

    /// <summary>Those of a site.</summary>
    Site,

    /// <summary>Those of a department, or of one below it.</summary>
    Department,

    /// <summary>Those of a group.</summary>
    Group,
}

/// <summary>A right to a thing.</summary>
/// <param name="OfPeople">Whether it can reach some people; one to a thing of the firm reaches all.</param>
public sealed record RightLabel(string Do, string On, bool OfPeople, Core.Lists.Label Label);

/// <summary>A section of the record.</summary>
public sealed record RoleSection(string Key, Labels Label, RoleField[] Fields);

/// <param name="Access">What the field itself gives to each role that it names.</param>
/// <param name="List">The list whose entries it holds; null for none.</param>
/// <param name="Options">What there is to choose from; empty for others.</param>
public sealed record RoleField(
    string Key,
    Labels Label,
    Core.Fields.FieldType Type,
    Dictionary<string, Core.Fields.FieldAccess> Access,
    string? List,
    RoleFieldOption[] Options
);

public sealed record RoleFieldOption(string Value, Labels Label);

/// <summary>The draft.</summary>
/// <param name="Version">What to send as If-Match when saving it or making it live.</param>
/// <param name="BasedOn">The version it was begun from.</param>
/// <param name="AskedBy">Who asked for it to be made live, where somebody else has to agree.</param>
/// <param name="AskedById">The account of who asked.</param>
public sealed record RightsDraftResponse(JsonObject Configuration, string Version, int BasedOn, Instant At, string ByName, string? AskedBy, Guid? AskedById)
{
    internal static RightsDraftResponse Of(RightsDraft draft) =>
        new(
            JsonNode.Parse(draft.Configuration)!.AsObject(),
            Platform.Versions.Tag(draft.RowVersion),
            draft.BasedOn,
            draft.At,
            draft.ByName,
            draft.AskedByName,
            draft.AskedById
        );
}

/// <param name="Configuration">A configuration as its JSON Schema has it.</param>
public sealed record RightsDraftRequest(JsonObject Configuration);

public sealed record PublishRightsBody(string? Why);

/// <summary>What a draft would do.</summary>
/// <param name="Problems">What keeps it from being made live.</param>
/// <param name="NeedsSecond">Whether somebody may get more by it, so that a second person has to agree.</param>
/// <param name="WidensOwn">Whether the user who asks would get more by it themselves, and so cannot be the one who agrees.</param>
/// <param name="Proved">Roles whose holders would have to prove by a second factor who they are from then on.</param>
/// <param name="NoLongerProved">Roles whose holders would no longer have to.</param>
public sealed record RightsReviewResponse(
    Platform.ProblemEntry[] Problems,
    ChangedRole[] Roles,
    ChangedGroup[] Groups,
    ChangedHolder[] Holders,
    bool NeedsSecond,
    bool WidensOwn,
    string[] Proved,
    string[] NoLongerProved
);

public sealed record ChangedRole(string Role, bool IsNew, bool IsGone, RightResponse[] Gained, RightResponse[] Lost);

/// <param name="Coming">The first of those who would come into it.</param>
/// <param name="Going">The first of those who would go out of it.</param>
public sealed record ChangedGroup(string Group, int Before, int After, string[] Coming, string[] Going);

public sealed record ChangedHolder(Guid Account, string Name, RightResponse[] Gained, RightResponse[] Lost);

/// <summary>A version of the firm's roles.</summary>
public sealed record RightsVersionResponse(int Version, Instant At, string ByName, string? AskedBy, string? Why);

/// <summary>Who may do something, and because of what.</summary>
/// <param name="People">Those who can sign in and may, by name.</param>
public sealed record RightsExplained(ExplainedHolder[] People);

/// <param name="Because">The rights that give it; at least one.</param>
public sealed record ExplainedHolder(Guid Account, string Name, ExplainedRight[] Because);

/// <param name="Rule">The rule by which they hold the role; null where it was granted to them.</param>
public sealed record ExplainedRight(string Role, RightResponse Right, RoleByRule? Rule);

/// <summary>A role that an account has for a time.</summary>
/// <param name="From">The first day, included; null for from when it was given on.</param>
/// <param name="To">The last day, included; null for good.</param>
public sealed record AccountGrant(Guid Id, string Role, LocalDate? From, LocalDate? To, Instant At, string ByName);

/// <param name="From">The first day, included; null for from now on.</param>
/// <param name="To">The last day, included; null for good.</param>
public sealed record GrantRequest(string Role, LocalDate? From, LocalDate? To, string? Why);

public sealed record GrantResponse(Guid Id);
