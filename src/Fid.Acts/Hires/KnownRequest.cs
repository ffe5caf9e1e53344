using System.Text.Json;
using Fid.Core.People;
using Fid.Data.Intake;
using NodaTime;
using NodaTime.Text;

namespace Fid.Acts.Hires;

/// <summary>What is typed of somebody so far, by which the firm may know them.</summary>
public sealed record KnownRequest(string? GivenName, string? FamilyName, LocalDate? BirthDate, string? Email, string? Phone, LocalDate? Start)
{
    public PersonFacts ToFacts() => new(GivenName ?? "", FamilyName ?? "", BirthDate, Email, Phone);

    public static KnownRequest Of(NewHireRequest hire) =>
        new(
            Typed(hire, "given_name"),
            Typed(hire, "family_name"),
            LocalDatePattern.Iso.Parse(Typed(hire, "birth_date") ?? "") is { Success: true } born ? born.Value : null,
            Typed(hire, "email"),
            Typed(hire, "mobile") ?? Typed(hire, "phone"),
            hire.Start
        );

    public static KnownRequest Of(FeedCandidate candidate) =>
        new(candidate.GivenName, candidate.FamilyName, candidate.BirthDate, candidate.Email, candidate.Phone, candidate.Start);

    private static string? Typed(NewHireRequest hire, string field) =>
        hire.Typed.TryGetValue(field, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString() : null;
}
