using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Core.Certificates;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.Lists;
using NodaTime;

namespace Fid.Server.People;

/// <summary>A record, as the reader may see it.</summary>
/// <param name="AsOf">The day it is shown for: today, or the first day of somebody who has not started.</param>
/// <param name="Hire">The hire under way, if any.</param>
/// <param name="Settled">The hire by which they settled, where none is under way: its checklist can be looked back at.</param>
/// <param name="Checklists">The checklists of changes of job and of leavings that the reader may see, those under way first.</param>
/// <param name="ClosedHire">What became of the hire where it came to nothing; null for all others.</param>
/// <param name="Version">What to send as If-Match when saving.</param>
/// <param name="FieldsVersion">The version of the fields' configuration.</param>
/// <param name="Sections">All fields the reader may see, hidden ones too.</param>
/// <param name="Evaluation">What is shown, wrong and missing as it is stored.</param>
/// <param name="OtherStints">Other times the same person worked here, the latest first.</param>
/// <param name="Waiting">What is asked for and waits, as far as the reader may see the fields.</param>
public sealed record RecordResponse(
    Guid EmploymentId,
    string Number,
    string GivenName,
    string FamilyName,
    string? Job,
    string? Kind,
    string? Site,
    LocalDate Start,
    LocalDate AsOf,
    LocalDate Today,
    string Version,
    HireLink? Hire,
    HireLink? Settled,
    ChecklistLink[] Checklists,
    ClosedHire? ClosedHire,
    int FieldsVersion,
    SectionResponse[] Sections,
    EvaluationResponse Evaluation,
    StintLink[] OtherStints,
    WaitingValue[] Waiting
);

/// <summary>A value that somebody asks for: nothing of it is true yet.</summary>
/// <param name="Request">The request it is part of.</param>
/// <param name="Field">Its address.</param>
/// <param name="Value">What it is to be; null for no value.</param>
/// <param name="From">The day from which; null where it corrects what is there.</param>
public sealed record WaitingValue(Guid Request, string Field, JsonElement? Value, string? Display, LocalDate? From, string AskedBy, Instant AskedAt);

/// <summary>Another time the same person worked here.</summary>
/// <param name="End">The last day; null where none is set.</param>
public sealed record StintLink(Guid EmploymentId, string Number, LocalDate Start, LocalDate? End, string? Job);

/// <summary>How a hire came to nothing.</summary>
public sealed record ClosedHire(Guid HireId, HireOutcome Outcome, string Why, LocalDate On);

public sealed record HireLink(Guid Id, int Done, int Of);

/// <summary>A checklist of somebody who works here.</summary>
/// <param name="Day">The day it is planned around.</param>
/// <param name="Done">Tasks done of those that have to be finished before the day.</param>
/// <param name="Of">How many of these apply.</param>
/// <param name="Finished">The day on which all was done; null while it is under way.</param>
public sealed record ChecklistLink(Guid Id, Occasion Occasion, LocalDate Day, int Done, int Of, LocalDate? Finished);

public sealed record SectionResponse(string Key, Labels Label, FieldResponse[] Fields);

/// <summary>A field and its value.</summary>
/// <param name="Parent">The field that narrows what can be chosen.</param>
/// <param name="Required">"always", the stage from which it must be filled, or null.</param>
/// <param name="Sensitive">Whether the value is a mask that stands for one that is shown when asked for.</param>
/// <param name="ChangesOverTime">Whether another value is more likely one from a day on than a mistake put right.</param>
/// <param name="Takes">For a file, which may be given; null for all else.</param>
/// <param name="Display">What to show for a list entry or a person.</param>
/// <param name="Since">The day from which the value holds.</param>
/// <param name="Coming">What it will be, from which day; a value that ends is null from then on.</param>
public sealed record FieldResponse(
    string Key,
    FieldType Type,
    Labels Label,
    string? List,
    OptionResponse[]? Options,
    string? Parent,
    string? Required,
    FieldAccess Access,
    bool Unique,
    bool Sensitive,
    bool ChangesOverTime,
    FileTerms? Takes,
    JsonElement? Value,
    string? Display,
    ValueSource? Source,
    ChangeResponse? Change,
    LocalDate? Since,
    ComingValue[] Coming,
    RowsResponse? Rows = null
);

/// <summary>The rows of a field.</summary>
/// <param name="Columns">The columns the reader may see, as fields without values; the key of each is that of the rows and its own.</param>
/// <param name="Key">The key of the column that says what a row is about; null for none.</param>
/// <param name="From">The key of the column with the first day a row holds; null for none.</param>
/// <param name="Until">The key of the column with the last day a row holds, included; null for none.</param>
/// <param name="MayRemove">Whether the reader may take whole rows away: they may change all that stands in one.</param>
/// <param name="Rows">By what they are about, then by when they hold.</param>
public sealed record RowsResponse(FieldResponse[] Columns, string? Key, string? From, string? Until, bool MayRemove, RowResponse[] Rows);

/// <summary>A row of a field.</summary>
/// <param name="Cells">The values that stand in it, each with its address for a key; columns without a value are left out.</param>
/// <param name="Standing">How somebody stands with what the row is about, where it is a certificate; null on rows that another of the same kind
/// stands for.</param>
public sealed record RowResponse(Guid Id, FieldResponse[] Cells, RowStanding? Standing);

/// <param name="Until">The last day of the unbroken days held; null for ever, and where none has begun.</param>
/// <param name="Warning">The days of those warned at that are left, or more.</param>
public sealed record RowStanding(CertificateState State, LocalDate? Until, int? Warning);

/// <summary>Which files a field takes.</summary>
/// <param name="Groups">The groups; null for any.</param>
/// <param name="MostBytes">The most bytes.</param>
public sealed record FileTerms(FileGroup[]? Groups, int MostBytes);

public sealed record ComingValue(LocalDate From, JsonElement Value, string? Display);

/// <summary>A label in each language.</summary>
public sealed record Labels(string En, string De)
{
    public static Labels Of(IReadOnlyDictionary<string, string> labels)
    {
        var english = labels.GetValueOrDefault("en") ?? labels.Values.FirstOrDefault() ?? "";
        return new Labels(english, labels.GetValueOrDefault("de") ?? english);
    }
}

public sealed record OptionResponse(string Value, Labels Label, bool Retired, string[]? Within);

/// <summary>Who set a value, when, from where, and why.</summary>
public sealed record ChangeResponse(string By, Instant At, string Origin, string? Why);

/// <summary>What follows from the values of a record.</summary>
/// <param name="Set">The values that rules, defaults and computations gave.</param>
/// <param name="Shown">Keys of the fields to show, in order.</param>
/// <param name="Errors">What is wrong with values of shown fields.</param>
/// <param name="MissingNow">Shown fields that are required by now and empty.</param>
/// <param name="MissingLater">The same for each later stage, in order.</param>
/// <param name="Filled">How many shown fields have a value.</param>
public sealed record EvaluationResponse(
    SetValue[] Set,
    IReadOnlyList<string> Shown,
    FieldErrorResponse[] Errors,
    IReadOnlyList<string> MissingNow,
    StageMissing[] MissingLater,
    int Filled
)
{
    internal static async Task<EvaluationResponse> OfAsync(FidDb db, LiveFields fields, EvaluatedRecord record, ListNames names, CancellationToken cancellation)
    {
        var set = record.SetBy.Where(s => s.Value != "typed").ToList();
        var display = await RecordReader.DisplayAsync(db, fields, set.Select(s => (s.Key, record.Values[s.Key])), names, cancellation);
        return new EvaluationResponse(
            [.. set.Select(s => new SetValue(s.Key, record.Values[s.Key], display.GetValueOrDefault(s.Key), s.Value))],
            record.Shown,
            [.. record.Errors.Select(e => new FieldErrorResponse(e.Field, e.Misfit))],
            record.MissingNow,
            [.. record.MissingLater.Select(l => new StageMissing(l.Stage, l.Fields))],
            record.Shown.Count(record.Values.ContainsKey)
        );
    }
}

/// <param name="By">"rule:" and the field whose change set it, "default" or "computed".</param>
public sealed record SetValue(string Field, JsonElement Value, string? Display, string By);

public sealed record FieldErrorResponse(string Field, Misfit Misfit);

public sealed record StageMissing(string Stage, IReadOnlyList<string> Fields);
