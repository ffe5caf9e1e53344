using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts;

/// <summary>Who does something to the firm's data: what they may, from where, under which key, and on which day of the firm. Made once
/// for a request or a job, by whatever brings it in.</summary>
public sealed record Actor
{
    /// <summary>Roles whose holders open hires and change records.</summary>
    public static IReadOnlyList<string> CoordinatingRoles { get; } = [Roles.Coordinator, Roles.Administrator];

    /// <summary>Roles whose holders connect Fid with other systems and look after accounts.</summary>
    public static IReadOnlyList<string> AdministeringRoles { get; } = [Roles.Administrator];

    /// <summary>Roles whose holders read every record.</summary>
    public static IReadOnlyList<string> ReadingRoles { get; } = [Roles.Coordinator, Roles.Administrator, Roles.Payroll];

    /// <summary>Roles whose holders see Arrivals: managers see their own newcomers there.</summary>
    public static IReadOnlyList<string> ArrivalsRoles { get; } = [Roles.Coordinator, Roles.Administrator, Roles.Payroll, Roles.Manager];

    public required ActorKind Kind { get; init; }

    /// <summary>The account of a person; null for all else.</summary>
    public Guid? AccountId { get; init; }

    /// <summary>How changes name the actor: a person's name, or what Fid does and why.</summary>
    public required string Name { get; init; }

    /// <summary>The roles that say which fields the actor sees and which acts are open to them.</summary>
    public required IReadOnlyList<string> RoleNames { get; init; }

    /// <summary>The person whom the account is of; null where it is of nobody the firm has a record of.</summary>
    public Guid? PersonId { get; init; }

    /// <summary>The codes of the teams that the actor belongs to.</summary>
    public IReadOnlyList<string> Teams { get; init; } = [];

    /// <summary>Where changes come from: a sheet, the demonstration, a connection; null for the place of the act itself.</summary>
    public string? Origin { get; init; }

    /// <summary>The key under which what is asked for is done once; null where it may be done as often as it is asked for.</summary>
    public Guid? Key { get; init; }

    /// <summary>Today, where the firm is.</summary>
    public required LocalDate Today { get; init; }

    public required FirmClock Clock { get; init; }

    public bool MayCoordinate => HasAny(CoordinatingRoles);

    public bool MayAdminister => HasAny(AdministeringRoles);

    public bool MayReadEverybody => HasAny(ReadingRoles);

    public bool SeesArrivals => HasAny(ArrivalsRoles);

    /// <summary>The account of a person who is signed in. Throws for an actor who is none: such an act is not open to them.</summary>
    public Guid Account => AccountId ?? throw new InvalidOperationException($"{Name} has no account.");

    /// <summary>Fid itself, which sees and may all that an administrator may.</summary>
    /// <param name="why">What it does, as changes name it.</param>
    public static async Task<Actor> FidAsync(string why, FirmClock clock, FidDb db, CancellationToken cancellation) =>
        new()
        {
            Kind = ActorKind.Fid,
            Name = "Fid",
            Origin = why,
            RoleNames = [Roles.Administrator],
            Clock = clock,
            Today = await clock.TodayAsync(db, cancellation),
        };

    /// <summary>Somebody of whom nothing is known, who may nothing but what anybody may.</summary>
    public static Actor Visitor(FirmClock clock) =>
        new()
        {
            Kind = ActorKind.Person,
            Name = "",
            RoleNames = [],
            Clock = clock,
            Today = LocalDate.FromDateTime(clock.Now.ToDateTimeUtc()),
        };

    /// <summary>A person by their account, as it is now: for work that goes on after they asked for it. One who is gone, or whose account is
    /// disabled, may nothing.</summary>
    /// <param name="origin">Where the changes come from.</param>
    public static async Task<Actor> OfAccountAsync(Guid account, string origin, FirmClock clock, FidDb db, CancellationToken cancellation)
    {
        var user = await db.Users.AsNoTracking().SingleOrDefaultAsync(u => u.Id == account && u.DisabledAt == null, cancellation);
        return new Actor
        {
            Kind = ActorKind.Person,
            AccountId = account,
            Name = user?.DisplayName ?? "",
            PersonId = user?.PersonId,
            Teams = user?.Teams ?? [],
            RoleNames = user is null
                ? []
                : await db
                    .UserRoles.Where(r => r.UserId == account)
                    .Join(db.Roles, u => u.RoleId, r => r.Id, (_, role) => role.Name!)
                    .ToListAsync(cancellation),
            Origin = origin,
            Clock = clock,
            Today = await clock.TodayAsync(db, cancellation),
        };
    }

    /// <summary>The actor as the author of a change that is made now.</summary>
    /// <param name="place">Where an act of this kind is done by hand.</param>
    public Author Author(string place) => new(AccountId, Name, Clock.Now, Origin ?? place);

    private bool HasAny(IReadOnlyList<string> roles) => RoleNames.Any(roles.Contains);
}

/// <summary>What kind of actor somebody or something is.</summary>
public enum ActorKind
{
    /// <summary>A person with an account.</summary>
    Person,

    /// <summary>Fid itself: a job.</summary>
    Fid,

    /// <summary>Another system.</summary>
    Connection,

    /// <summary>A device, such as a time clock.</summary>
    Device,
}
