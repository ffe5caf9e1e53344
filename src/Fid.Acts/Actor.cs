using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using NodaTime;

namespace Fid.Acts;

/// <summary>Who does something to the firm's data: what they may, from where, under which key, and on which day of the firm. Made once
/// for a request or a job, by whatever brings it in.</summary>
public sealed record Actor
{
    public required ActorKind Kind { get; init; }

    /// <summary>The account of a person; null for all else.</summary>
    public Guid? AccountId { get; init; }

    /// <summary>How changes name the actor: a person's name, or what Fid does and why.</summary>
    public required string Name { get; init; }

    /// <summary>What the actor may see and do, and with whom.</summary>
    public required HeldRights Rights { get; init; }

    /// <summary>The person whom the account is of; null where it is of nobody the firm has a record of.</summary>
    public Guid? PersonId { get; init; }

    /// <summary>The person's employments: what the manager field of a record names.</summary>
    public Guid[] Employments { get; init; } = [];

    /// <summary>Whose tasks the actor does.</summary>
    public TaskOwners Tasks { get; init; } = TaskOwners.None;

    /// <summary>Where changes come from: a sheet, the demonstration, a connection; null for the place of the act itself.</summary>
    public string? Origin { get; init; }

    /// <summary>The key under which what is asked for is done once; null where it may be done as often as it is asked for.</summary>
    public Guid? Key { get; init; }

    /// <summary>Today, where the firm is.</summary>
    public required LocalDate Today { get; init; }

    public required FirmClock Clock { get; init; }

    /// <summary>Whether the actor may do something with a thing, be it of all people or of some.</summary>
    public bool May(string action, string thing) => Rights.May(action, thing);

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
            Rights = Everything,
            Clock = clock,
            Today = await clock.TodayAsync(db, cancellation),
        };

    /// <summary>Somebody of whom nothing is known, who may nothing but what anybody may.</summary>
    public static Actor Visitor(FirmClock clock) =>
        new()
        {
            Kind = ActorKind.Person,
            Name = "",
            Rights = HeldRights.None,
            Clock = clock,
            Today = LocalDate.FromDateTime(clock.Now.ToDateTimeUtc()),
        };

    /// <summary>A person by their account, as it is now: for work that goes on after they asked for it. One who is gone, or whose account is
    /// disabled, may nothing.</summary>
    /// <param name="origin">Where the changes come from.</param>
    public static async Task<Actor> OfAccountAsync(Guid account, string origin, FirmClock clock, FidDb db, CancellationToken cancellation)
    {
        var today = await clock.TodayAsync(db, cancellation);
        var holder = await AccountHolder.FindAsync(db, account, today, cancellation);
        return Of(holder, account, origin, null, clock, today);
    }

    /// <summary>Who holds an account, as an actor.</summary>
    /// <param name="holder">Null for an account that is gone or disabled: it may nothing.</param>
    /// <param name="origin">Where the changes come from; null for the place of the act itself.</param>
    /// <param name="key">The key of the act.</param>
    public static Actor Of(AccountHolder? holder, Guid account, string? origin, Guid? key, FirmClock clock, LocalDate today) =>
        new()
        {
            Kind = ActorKind.Person,
            AccountId = account,
            Name = holder?.Name ?? "",
            PersonId = holder?.PersonId,
            Employments = holder?.Employments ?? [],
            Tasks = holder?.Tasks ?? TaskOwners.None,
            Rights = holder?.Rights ?? HeldRights.None,
            Origin = origin,
            Key = key,
            Clock = clock,
            Today = today,
        };

    /// <summary>The actor as the author of a change that is made now.</summary>
    /// <param name="place">Where an act of this kind is done by hand.</param>
    public Author Author(string place) => new(AccountId, Name, Clock.Now, Origin ?? place);

    // What Fid does by itself is not for the firm's own roles to say.
    private static HeldRights Everything { get; } = HeldRights.Of(RoleSet.Shipped, [ShippedRoles.Administrator]);
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
