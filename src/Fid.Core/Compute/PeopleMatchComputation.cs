using System.Text.Json;
using Fid.Core.Json;
using Fid.Core.People;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`people.match`: who of the people known somebody may be.</summary>
internal static class PeopleMatchComputation
{
    private static readonly Shape Question = new("person", "known");
    private static readonly Shape Person = new("given", "family", "born?", "email?", "phone?", "identifier?", "otherNames?");
    private static readonly Shape Known = new("given", "family", "born?", "email?", "phone?", "identifier?", "otherNames?", "id");
    private static readonly Shape Name = new("given?", "family?");

    private static readonly Choices Reasons = new(
        "identifier",
        "name",
        "similarName",
        "swappedNames",
        "otherName",
        "born",
        "swappedBirthDate",
        "email",
        "phone"
    );

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        PersonFacts? person = null;
        List<(string Id, PersonFacts Person)> known = [];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    person = Read(ref question, Person).Person;
                else
                    known = question.Items((ref q) => Read(ref q, Known));
            }
        var ids = new HashSet<string>(StringComparer.Ordinal);
        foreach (var (id, _) in known)
            if (!ids.Add(id) && id.Length > 0)
                question.Report("duplicate-id", $"The id {id} stands twice. Keep one.", "known");
        if (!question.IsSound)
            return;

        writer.WriteStartObject();
        writer.WriteStartArray("matches");
        foreach (var match in new PersonMatcher(known).Find(person!))
        {
            writer.WriteStartObject();
            writer.WriteString("id", match.Id);
            writer.WriteString("verdict", match.IsSame ? "same" : "possible");
            writer.WriteNumber("score", match.Score);
            writer.WriteStartArray("reasons");
            foreach (var reason in match.Reasons)
                writer.WriteStringValue(Reasons.Word((int)reason));
            writer.WriteEndArray();
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteEndObject();
    }

    private static (string Id, PersonFacts Person) Read(ref QuestionReader question, Shape shape)
    {
        string id = "",
            given = "",
            family = "";
        LocalDate? born = null;
        string? email = null,
            phone = null,
            identifier = null;
        List<string> others = [];
        var seen = 0u;
        if (question.Object())
            while (question.Property(shape, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        given = question.Text();
                        break;
                    case 1:
                        family = question.Text();
                        break;
                    case 2:
                        born = question.Date();
                        break;
                    case 3:
                        email = question.Text();
                        break;
                    case 4:
                        phone = question.Text();
                        break;
                    case 5:
                        identifier = question.Text();
                        break;
                    case 6:
                        others = question.Items(ReadName);
                        break;
                    default:
                        id = question.Id();
                        break;
                }
            }
        return (id, new PersonFacts(given, family, born, email, phone, identifier, others));
    }

    // A name of several parts, or all of it in one text.
    private static string ReadName(ref QuestionReader question)
    {
        if (question.IsText)
            return question.Text();
        var parts = new string[2];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Name, ref seen) is var at and >= 0)
                parts[at] = question.Text();
        return string.Join(' ', parts.Where(p => p is not null));
    }
}
