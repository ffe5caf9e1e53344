using Fid.Acts.People;
using Fid.Acts.Revisions;
using Fid.Core.Pay;
using Fid.Data.People;
using Fid.Server.Lists;
using NodaTime;

namespace Fid.Server.Revisions;

/// <summary>Whose pay is to be revised, by what rule, from when on.</summary>
/// <param name="Percent">By how much rates rise; 2.5 is 2.5 %.</param>
/// <param name="AtLeastHourly">What an hour is paid more at least.</param>
/// <param name="UpToBand">Whether nobody is raised above the maximum of their band.</param>
/// <param name="From">The day from which the new rates hold.</param>
public sealed record RevisionAsked(RevisedGroup Group, decimal Percent, decimal AtLeastHourly, bool UpToBand, LocalDate From)
{
    internal RevisionQuestion Question() => new(Group, new RevisionRule(Percent, AtLeastHourly, UpToBand), From);
}

/// <param name="Id">The revision, named by the user who makes it.</param>
/// <param name="Why">Why pay is revised.</param>
/// <param name="Seen">The version of the preview that was seen.</param>
public sealed record RevisionToMake(Guid Id, RevisionAsked Asked, string? Why, string Seen);

/// <summary>What a rule would make of the rates of a group.</summary>
/// <param name="Lines">Those it is about, by name.</param>
/// <param name="LeftOut">Those of the group whose pay stays as it is, and why.</param>
/// <param name="Raised">How many are paid more.</param>
/// <param name="AnnualBefore">What they are paid a year, all together.</param>
/// <param name="AnnualAfter">What they will be.</param>
/// <param name="Version">By which somebody says what they saw.</param>
public sealed record RevisionPreviewResponse(
    RevisionLine[] Lines,
    RevisionLeftOut[] LeftOut,
    int Raised,
    decimal AnnualBefore,
    decimal AnnualAfter,
    decimal Budget,
    string Version
)
{
    internal static RevisionPreviewResponse Of(RevisionPreview preview, Reader reader, ListNames names) =>
        new(
            [
                .. preview.People.Zip(preview.Pay.People, (person, pay) =>
                    new RevisionLine(
                        person.Employment.Id,
                        person.Employment.Number,
                        reader.NameOf(person.Record, person.Employment.Number),
                        names.Of("jobs", person.Job),
                        person.Per,
                        pay.Before,
                        pay.After,
                        pay.AnnualBefore,
                        pay.AnnualAfter,
                        pay.Limit,
                        person.EnteredAhead
                    )
                ),
            ],
            [.. preview.LeftOut.Select(p => new RevisionLeftOut(p.Employment.Id, reader.NameOf(p.Record, p.Employment.Number), p.Why))],
            preview.Pay.Raised,
            preview.Pay.AnnualBefore,
            preview.Pay.AnnualAfter,
            preview.Pay.Budget,
            preview.Version
        );
}

/// <summary>What becomes of somebody's pay.</summary>
/// <param name="Job">The job they have on the day.</param>
/// <param name="Before">What they are paid, in the unit it is stated in.</param>
/// <param name="After">What they will be.</param>
/// <param name="Limit">What else than the percentage decided.</param>
/// <param name="EnteredAhead">The day from which another rate is entered already, which stays; null for none.</param>
public sealed record RevisionLine(
    Guid EmploymentId,
    string Number,
    string Name,
    string? Job,
    PayPeriod Per,
    decimal Before,
    decimal After,
    decimal AnnualBefore,
    decimal AnnualAfter,
    RevisionLimit Limit,
    LocalDate? EnteredAhead
);

public sealed record RevisionLeftOut(Guid EmploymentId, string Name, LeftOutReason Why);

/// <summary>A revision that was made.</summary>
/// <param name="Group">Of whom, in words; empty for everybody.</param>
/// <param name="People">How many were paid more.</param>
/// <param name="Budget">What all of them were paid a year more.</param>
/// <param name="UndoneByName">Who undid it; null where it holds.</param>
public sealed record MadeRevision(
    Guid Id,
    Instant At,
    string ByName,
    LocalDate From,
    string Why,
    string[] Group,
    decimal Percent,
    decimal AtLeastHourly,
    bool UpToBand,
    int People,
    decimal Budget,
    string? UndoneByName
);
