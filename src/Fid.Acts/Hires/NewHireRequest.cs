using System.Text.Json;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>A hire to open.</summary>
/// <param name="Id">Chosen by the user who asks, so that the same request sent twice opens one hire.</param>
/// <param name="Template">The code of the role template; empty, with a colleague to be like, for the one that they were hired from.</param>
/// <param name="Start">The first day; may lie in the past.</param>
/// <param name="Typed">What the coordinator typed, by field key.</param>
/// <param name="Person">The person it is a new stint of; null for a new person.</param>
/// <param name="Reuse">What to take over from the person's last stint: field keys.</param>
/// <param name="Like">The colleague it is to be like; null for nobody.</param>
/// <param name="BackDated">Whether a start in the past is meant so.</param>
/// <param name="Candidate">The candidate from recruiting it is; null for none.</param>
/// <param name="SecondStint">Whether a stint beside another of the same person is meant so.</param>
/// <param name="NotThese">People it is not, though it looked so, and hires opened with it that are not the same person.</param>
/// <param name="Why">A reason that is kept with the opening: needed where pay that was typed lies outside the band of the job, or far from colleagues.</param>
public sealed record NewHireRequest(
    Guid Id,
    string Template,
    LocalDate? Start,
    Dictionary<string, JsonElement> Typed,
    Guid? Person = null,
    string[]? Reuse = null,
    LikeColleague? Like = null,
    bool BackDated = false,
    Guid? Candidate = null,
    bool SecondStint = false,
    Guid[]? NotThese = null,
    string? Why = null
);

/// <summary>A colleague to be like.</summary>
/// <param name="Employment">The colleague.</param>
/// <param name="Parts">What to copy: "job", "pay", "clock", "checklist", "items".</param>
public sealed record LikeColleague(Guid Employment, string[] Parts);
