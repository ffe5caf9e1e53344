using System.Text.Json;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Texts;
using Fid.Data.Intake;
using NodaTime;
using NodaTime.Text;

namespace Fid.Acts.Intake;

/// <summary>Reads what a recruiting feed answers: docs/recruiting-feed.openapi.json says how it is made.</summary>
public static class FeedAnswer
{
    private const int LongestText = 300;
    private const int MostCandidates = 5000;

    /// <summary>The candidates of an answer. It is taken whole or not at all: an answer of which a part is rubbish is not believed.</summary>
    /// <returns>Problems with paths into the answer.</returns>
    public static Result<FeedCandidate[]> Read(ReadOnlyMemory<byte> answer)
    {
        JsonDocument document;
        try
        {
            document = JsonDocument.Parse(answer);
        }
        catch (JsonException)
        {
            return Result<FeedCandidate[]>.Failed(new Problem("", "bad-json", "The answer is no JSON."));
        }
        using (document)
        {
            if (
                document.RootElement.ValueKind != JsonValueKind.Object
                || !document.RootElement.TryGetProperty("candidates", out var list)
                || list.ValueKind != JsonValueKind.Array
            )
                return Result<FeedCandidate[]>.Failed(new Problem("/candidates", "missing-property", "The answer has no list of candidates."));
            if (list.GetArrayLength() > MostCandidates)
                return Result<FeedCandidate[]>.Failed(new Problem("/candidates", "too-many", $"The answer has more than {MostCandidates} candidates."));
            var problems = new List<Problem>();
            var candidates = list.EnumerateArray().Select((c, i) => Candidate(c, $"/candidates/{i}", problems)).ToArray();
            foreach (var twice in candidates.GroupBy(c => c.Id).Where(g => g.Count() > 1))
                problems.Add(new Problem("/candidates", "duplicate-id", $"The id {twice.Key} stands twice."));
            return problems.Count > 0 ? Result<FeedCandidate[]>.Failed(problems) : candidates;
        }
    }

    private static FeedCandidate Candidate(JsonElement json, string path, List<Problem> problems)
    {
        if (json.ValueKind != JsonValueKind.Object)
        {
            problems.Add(new Problem(path, "wrong-type", "A candidate is an object."));
            return new FeedCandidate("", null, null, null, null, null, null, null, null);
        }
        var id = Text("id", FeedCandidate.LongestId);
        if (string.IsNullOrEmpty(id))
            problems.Add(new Problem($"{path}/id", "missing-property", "A candidate needs an id."));
        return new FeedCandidate(
            id ?? "",
            Text("givenName", LongestText),
            Text("familyName", LongestText),
            Date("birthDate"),
            Text("email", LongestText),
            Text("phone", LongestText),
            Text("role", LongestText),
            Text("site", LongestText),
            Date("start")
        );

        string? Text(string name, int most)
        {
            if (!json.TryGetProperty(name, out var value) || value.ValueKind == JsonValueKind.Null)
                return null;
            if (value.ValueKind == JsonValueKind.String && TextRules.TryClean(value.GetString()!, out var clean) && clean.Length <= most)
                return clean.Length == 0 ? null : clean;
            problems.Add(new Problem($"{path}/{name}", "bad-value", $"This is to be a text of at most {most} characters."));
            return null;
        }

        LocalDate? Date(string name)
        {
            if (Text(name, LongestText) is not { } text)
                return null;
            if (LocalDatePattern.Iso.Parse(text) is { Success: true } parsed && ValueCheck.IsSensible(parsed.Value))
                return parsed.Value;
            problems.Add(new Problem($"{path}/{name}", "bad-date", "This is to be a date, as 2027-03-01."));
            return null;
        }
    }
}
