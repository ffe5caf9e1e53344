using System.Text.Json;
using Fid.Core.Json;
using Fid.Core.People;

namespace Fid.Core.Compute;

/// <summary>`people.org`: who reports to whom.</summary>
internal static class PeopleOrgComputation
{
    private static readonly Shape Question = new("people");
    private static readonly Shape Member = new("id", "manager?", "dotted?");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        List<OrganisationMember> people = [];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) >= 0)
                people = question.Items(Read);
        if (!question.IsSound || Organisation.Of(people).Take(ref question) is not { } organisation)
            return;
        writer.WriteStartObject();
        writer.WriteStartArray("loops");
        foreach (var loop in organisation.Loops)
            Ids(writer, loop);
        writer.WriteEndArray();
        Counts(writer, "depth", organisation.Depth);
        Counts(writer, "direct", organisation.Direct);
        Counts(writer, "all", organisation.All);
        writer.WritePropertyName("tops");
        Ids(writer, organisation.Tops);
        writer.WriteEndObject();
    }

    private static OrganisationMember Read(ref QuestionReader question)
    {
        var id = "";
        string? manager = null;
        List<string> dotted = [];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Member, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        id = question.Id();
                        break;
                    case 1:
                        manager = question.Id();
                        break;
                    default:
                        dotted = question.Items((ref q) => q.Id());
                        break;
                }
            }
        return new OrganisationMember(id, manager, dotted);
    }

    private static void Ids(Utf8JsonWriter writer, IReadOnlyList<string> ids)
    {
        writer.WriteStartArray();
        foreach (var id in ids)
            writer.WriteStringValue(id);
        writer.WriteEndArray();
    }

    private static void Counts(Utf8JsonWriter writer, string name, IReadOnlyDictionary<string, int> counts)
    {
        writer.WriteStartObject(name);
        foreach (var (id, count) in counts)
            writer.WriteNumber(id, count);
        writer.WriteEndObject();
    }
}
