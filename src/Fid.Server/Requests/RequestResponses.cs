using System.Text.Json;
using Fid.Core.Fields;
using Fid.Data.Requests;
using Fid.Server.People;
using NodaTime;

namespace Fid.Server.Requests;

/// <summary>What waits for the user, and what they asked for.</summary>
/// <param name="ToDecide">What waits for their word, the longest first.</param>
/// <param name="Asked">What they asked for: what waits first, then what was decided on, the latest first.</param>
public sealed record WaitingResponse(LocalDate Today, RequestResponse[] ToDecide, RequestResponse[] Asked);

/// <summary>A change of a record that somebody asks for, as far as the reader may see.</summary>
/// <param name="Version">What to send as If-Match when deciding.</param>
/// <param name="Person">Whom it is about: by number to those who may not see names.</param>
/// <param name="From">The day from which it is to hold; null where it corrects what is there.</param>
/// <param name="AskedAgain">Since when it is asked again, because the record changed meanwhile.</param>
/// <param name="Ended">When it was decided on; null while it waits.</param>
/// <param name="Said">What was said of it, and who did what, the first first.</param>
/// <param name="MayDecide">Whether the reader is asked.</param>
/// <param name="MayWithdraw">Whether the reader asked for it, and it waits.</param>
public sealed record RequestResponse(
    Guid Id,
    string Version,
    Guid EmploymentId,
    string Person,
    string? Job,
    string AskedBy,
    Instant AskedAt,
    LocalDate? From,
    string Why,
    RequestState State,
    Instant? AskedAgain,
    Instant? Ended,
    RequestedChangeResponse[] Changes,
    RequestStepResponse[] Steps,
    RequestSaid[] Said,
    bool MayDecide,
    bool MayWithdraw
);

/// <summary>A value that is asked for; null for no value.</summary>
/// <param name="Field">Its address.</param>
/// <param name="Before">What the record held when it was first asked for, where that is no longer so.</param>
/// <param name="Now">What the record holds by now, where that is another than what it was asked in place of.</param>
public sealed record RequestedChangeResponse(
    string Field,
    Labels Label,
    FieldType Type,
    RequestedValueResponse? Old,
    RequestedValueResponse? New,
    RequestedValueResponse? Before,
    RequestedValueResponse? Now
);

/// <param name="Display">What to show for an entry, a person or an option; null where the value is shown as it is.</param>
public sealed record RequestedValueResponse(JsonElement? Value, string? Display);

/// <summary>Some who are asked together.</summary>
/// <param name="Label">The approval by which; null where whoever may change the fields is asked.</param>
/// <param name="Fields">What the fields are called they are asked about.</param>
/// <param name="Who">Those who are asked as things are today, by name; those who have agreed are not asked any more.</param>
public sealed record RequestStepResponse(Labels? Label, Labels[] Fields, string[] Who, string? AgreedBy, Instant? AgreedAt);

/// <param name="What">What was done, such as "request.commented".</param>
public sealed record RequestSaid(string By, Instant At, string What, string? Words);

/// <summary>A change of a record to ask for.</summary>
/// <param name="Changes">New values by address; null empties one.</param>
/// <param name="From">The day from which they are to hold; left out, they correct what is there.</param>
/// <param name="Why">Why, for those who are asked.</param>
public sealed record AskRequest(Dictionary<string, JsonElement> Changes, LocalDate? From, string? Why);

/// <summary>Who would be asked.</summary>
/// <param name="Steps">One step after the other; none where nobody has to be.</param>
/// <param name="Direct">The addresses that can be saved without anybody.</param>
public sealed record RouteResponse(RequestStepResponse[] Steps, string[] Direct);

/// <param name="Comment">What there is to say.</param>
public sealed record CommentRequest(string? Comment);

/// <param name="To">The account of whom it is given to.</param>
public sealed record HandOnBody(Guid To, string? Comment);

/// <summary>Somebody who could be asked in place of the reader.</summary>
public sealed record CouldBeAsked(Guid Account, string Name);

/// <summary>What a request would come to.</summary>
/// <param name="Before">What follows from the record as it is.</param>
/// <param name="After">What would follow from it.</param>
/// <param name="Checklist">What would become of the hire's tasks; null where there is no hire under way, or the reader does not see it.</param>
public sealed record EffectsResponse(ReadingsResponse Before, ReadingsResponse After, ChecklistEffect? Checklist);

/// <param name="HandedOver">Open tasks that would be another manager's.</param>
/// <param name="Moved">Tasks whose last day would be another.</param>
public sealed record ChecklistEffect(int HandedOver, MovedTask[] Moved);

public sealed record MovedTask(string Name, LocalDate? From, LocalDate? To);
