using System.Globalization;
using System.Text.Json.Nodes;
using CsCheck;
using Fid.Core.Compute;
using Fid.Core.Json;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Compute;

/// <summary>Whatever stands in a question in another form than it should is refused at its place, whichever computation is asked.</summary>
public class ComputationShapeTests
{
    // Where anything may stand: values of records, and what templates say of a thing.
    private static readonly string[] Free =
    [
        "/values/",
        "/facts/",
        "/typed/",
        "/base/",
        "/mine/",
        "/theirs/",
        "/default/value",
        "/tasks/0/work",
        "/changes/0/old",
        "/changes/0/new",
    ];

    private static readonly string[] Others = ["7", "1.5", "\"word\"", "true", "[]", "{}", "null"];

    private static readonly string[] Junk =
    [
        "",
        "null",
        "[]",
        "{}",
        "\"\\ud800\"",
        "1e999",
        "-0",
        "\u0001",
        "\"9999-12-31\"",
        "0001-01-01",
        "-1",
        "99999999999",
    ];

    public static TheoryData<string> Names => [.. Computations.Names];

    [Theory]
    [MemberData(nameof(Names))]
    public void A_question_that_has_everything_is_answered(string name) => Asked.Answer(name, ComputationQuestions.Of(name)).ShouldStartWith("{");

    [Theory]
    [MemberData(nameof(Names))]
    public void What_is_of_another_type_is_refused_at_its_place(string name)
    {
        foreach (var other in Others.Where(o => o != "{}"))
            Asked.Problems(name, other).ShouldContain(p => p.Path.Length == 0);
        foreach (var (path, value) in Places(name).Skip(1))
        foreach (var other in Others.Where(o => KindOf(JsonNode.Parse(o)) != KindOf(value)))
        {
            var question = JsonNode.Parse(ComputationQuestions.Of(name))!;
            Put(question, path, JsonNode.Parse(other));
            if (Answers(name, question, out var problems))
                (IsFree(name, path) || IsEither(name, path) || (other == "null" && CanBeLeftOut(name, path))).ShouldBeTrue($"{name} takes {other} at {path}");
            else if (other != "null" && !IsFree(name, path))
                problems.ShouldContain(
                    p => IsAbout(p.Path, path),
                    $"{name}: {other} at {path}: {string.Join("; ", problems.Select(p => p.Path + " " + p.Code))}"
                );
        }
    }

    // What would follow from a question that is not understood is not worked out, and not told.
    [Theory]
    [MemberData(nameof(Names))]
    public void One_thing_wrong_is_told_as_one(string name)
    {
        foreach (var (path, value) in Places(name).Skip(1).Where(p => p.Value is not (JsonObject or JsonArray) && !IsFree(name, p.Path)))
        foreach (var other in Others.Where(o => o is not ("null" or "1.5") && KindOf(JsonNode.Parse(o)) != KindOf(value)))
        {
            var question = JsonNode.Parse(ComputationQuestions.Of(name))!;
            Put(question, path, JsonNode.Parse(other));
            if (!Answers(name, question, out var problems))
                problems.Count.ShouldBe(1, $"{name}: {other} at {path}: {string.Join("; ", problems.Select(p => p.Path + " " + p.Code))}");
        }
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void What_is_left_out_is_missed_at_its_place_or_not_needed(string name)
    {
        var needed = 0;
        foreach (var (path, _) in Places(name).Where(p => p.Path.Length > 0))
        {
            var question = JsonNode.Parse(ComputationQuestions.Of(name))!;
            if (At(question, path[..path.LastIndexOf('/')]) is not JsonObject holder)
                continue;
            holder.Remove(path[(path.LastIndexOf('/') + 1)..]);
            if (Answers(name, question, out var problems))
                continue;
            needed++;
            problems.Count.ShouldBeGreaterThan(0);
            problems.ShouldContain(
                p => (p.Code == "missing-property" && p.Path == path) || p.Code != "missing-property",
                $"{name} without {path}: {string.Join("; ", problems.Select(p => p.Path + " " + p.Code))}"
            );
        }
        needed.ShouldBeGreaterThan(name == "templates.merge" ? 2 : 0);
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void A_property_that_there_is_not_and_one_that_stands_twice_are_refused(string name)
    {
        foreach (var (path, value) in Places(name).Where(p => p.Value is JsonObject { Count: > 0 } && !IsFree(name, p.Path + "/")))
        {
            var question = JsonNode.Parse(ComputationQuestions.Of(name))!;
            ((JsonObject)At(question, path)!)["unheardOf"] = 7;
            if (!Answers(name, question, out var problems))
                problems.ShouldContain(p => p.Path.StartsWith(path, StringComparison.Ordinal), $"{name}: another property in {path}");
            else
                IsNamed(name, path).ShouldBeTrue($"{name} takes another property in {path}");
            var first = ((JsonObject)value!).First();
            var whole = ComputationQuestions.Of(name);
            var at = JsonNode.Parse(whole)!;
            ((JsonObject)At(at, path)!)["twice-over"] = first.Value?.DeepClone();
            Asked
                .Problems(name, at.ToJsonString().Replace("\"twice-over\"", $"\"{first.Key}\"", StringComparison.Ordinal))
                .ShouldContain(p => p.Code == "duplicate-property" && p.Path == $"{path}/{first.Key}", $"{name}: {first.Key} twice in {path}");
        }
    }

    [Fact]
    public void Nothing_that_is_asked_of_any_computation_makes_it_fall_over() =>
        (
            from name in Gen.OneOf(Computations.Names.Select(Gen.Const).ToArray())
            let question = ComputationQuestions.Of(name)
            from at in Gen.Int[0, question.Length - 1]
            from junk in Gen.OneOf(Junk.Select(Gen.Const).ToArray())
            from length in Gen.Int[0, 30]
            select (name, question[..at] + junk + question[Math.Min(question.Length, at + length)..])
        ).Sample(asked => Asked.Ask(asked.name, asked.Item2).Text.ShouldStartWith("{"), iter: 3000);

    private static IEnumerable<(string Path, JsonNode? Value)> Places(string name)
    {
        return In("", JsonNode.Parse(ComputationQuestions.Of(name)));

        static IEnumerable<(string, JsonNode?)> In(string path, JsonNode? value) =>
            value switch
            {
                JsonObject some => some.SelectMany(p => In($"{path}/{JsonPointer.Escape(p.Key)}", p.Value)).Prepend((path, value)),
                JsonArray some => some.SelectMany((v, i) => In($"{path}/{i}", v)).Prepend((path, value)),
                _ => [(path, value)],
            };
    }

    private static JsonNode? At(JsonNode root, string path) =>
        path.Split('/', StringSplitOptions.RemoveEmptyEntries)
            .Aggregate((JsonNode?)root, (at, step) => at is JsonArray list ? list[int.Parse(step, CultureInfo.InvariantCulture)] : at![step]);

    private static void Put(JsonNode root, string path, JsonNode? value)
    {
        if (path.Length == 0)
            return;
        var (holder, step) = (At(root, path[..path.LastIndexOf('/')]), path[(path.LastIndexOf('/') + 1)..]);
        if (holder is JsonArray list)
            list[int.Parse(step, CultureInfo.InvariantCulture)] = value;
        else
            ((JsonObject)holder!)[step] = value;
    }

    // What can be left out can be said to be nothing.
    private static bool CanBeLeftOut(string name, string path)
    {
        var question = JsonNode.Parse(ComputationQuestions.Of(name))!;
        return At(question, path[..path.LastIndexOf('/')]) is JsonObject holder
            && holder.Remove(path[(path.LastIndexOf('/') + 1)..])
            && Answers(name, question, out _);
    }

    private static bool Answers(string name, JsonNode question, out IReadOnlyList<Problem> problems)
    {
        var (answered, said) = Asked.Ask(name, question.ToJsonString());
        problems = answered ? [] : [.. JsonNode.Parse(said)!["errors"]!.AsArray().Select(e => new Problem($"{e!["path"]}", $"{e["code"]}", $"{e["message"]}"))];
        return answered;
    }

    // A mistake is told where it is, at what holds it, or at what in it is wrong.
    private static bool IsAbout(string told, string path) =>
        told == path || path.StartsWith(told + "/", StringComparison.Ordinal) || told.StartsWith(path + "/", StringComparison.Ordinal);

    private static bool IsFree(string name, string path) =>
        (
            name.StartsWith("templates.", StringComparison.Ordinal)
            || name is "fields.evaluate" or "rights.explain" or "approvals.needed"
            || path.EndsWith("/default/value", StringComparison.Ordinal)
        ) && Free.Any(f => path.Contains(f, StringComparison.Ordinal));

    // A limit is a number or a date; a predecessor an id, or an id with a lag; a requirement a word, or a stage; a label one for all languages,
    // or one each; a name can lack either part.
    private static bool IsEither(string name, string path) =>
        (name, path) is ("plan", "/tasks/1/after/0" or "/tasks/1/after/1") or ("people.match", "/known/0/otherNames/0")
        || path.EndsWith("/label", StringComparison.Ordinal)
        || (name == "fields.check" && (path.EndsWith("/min", StringComparison.Ordinal) || path.EndsWith("/max", StringComparison.Ordinal)));

    // Objects whose names are the asker's own.
    private static bool IsNamed(string name, string path) =>
        path
            is "/calendars"
                or "/lists"
                or "/pattern/shifts"
                or "/stored"
                or "/stored/pay"
                or "/facts"
                or "/values"
                or "/typed"
                or "/base"
                or "/mine"
                or "/theirs"
        || path.EndsWith("/values", StringComparison.Ordinal)
        || path.EndsWith("/access", StringComparison.Ordinal)
        || path.EndsWith("/label", StringComparison.Ordinal)
        || (name == "templates.resolve" && path.StartsWith("/templates/0/tasks/", StringComparison.Ordinal));

    private static string KindOf(JsonNode? node) =>
        node switch
        {
            null => "null",
            JsonObject => "object",
            JsonArray => "list",
            _ => node.GetValueKind() is System.Text.Json.JsonValueKind.True or System.Text.Json.JsonValueKind.False ? "yes or no" : $"{node.GetValueKind()}",
        };
}
