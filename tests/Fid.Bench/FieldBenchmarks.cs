using System.Text.Json;
using BenchmarkDotNet.Attributes;
using Fid.Core.Fields;
using Fid.Core.Fields.Shipped;
using NodaTime;

namespace Fid.Bench;

/// <summary>Looking through a configuration, and evaluating a record: the fields that ship and many of a firm's own, with formulas
/// of every kind between them.</summary>
public class FieldBenchmarks
{
    private static readonly string[] Stages = ["prepare", "arrive", "settle", "confirm"];

    private readonly ConfigurationQuestion _configuration = Configuration(400);
    private readonly FieldSet _set = FieldSet.Read(Configuration(120).Fields, Stages).Answer!;
    private readonly RecordQuestion _record = Record(Configuration(120).Fields, Stages);

    [Benchmark]
    public int Check() => ConfigurationCheck.Of(_configuration).Count;

    [Benchmark]
    public int Evaluate() => RecordEvaluation.Of(_set, _record).Values.Count;

    private static ConfigurationQuestion Configuration(int count)
    {
        var fields = ShippedFields.All.ToList();
        for (var i = 0; fields.Count < count; i++)
            fields.Add(
                (i % 6) switch
                {
                    0 => Own(i, FieldType.Number) with { Default = new FieldDefault(null, "weekly_hours * 1.5"), Min = new FieldLimit(0, null) },
                    1 => Own(i, FieldType.Date) with { Default = new FieldDefault(null, "addWorkingDays(start_date, 10)"), ShowWhen = "site == 'skerry'" },
                    2 => Own(i, FieldType.Text) with { Pattern = "[A-Z]{2}-\\d{4}", RequiredWhen = "pay_rate > 15 and kind == 'permanent'" },
                    3 => Own(i, FieldType.Choice) with
                    {
                        Options = [.. Enumerable.Range(0, 12).Select(o => new FieldOption($"o{o}", new Dictionary<string, string>()))],
                        OnChange = [new ChangeRule($"own_{i + 1}", $"own_{i}")],
                    },
                    4 => Own(i, FieldType.Text) with { Required = Requirement.From("settle") },
                    _ => Own(i, FieldType.Computed) with { Default = new FieldDefault(null, $"if(own_{i - 5} > 40, 'long', 'short')") },
                }
            );
        var lists = ShippedFields
            .All.Select(f => f.List)
            .OfType<string>()
            .Distinct()
            .ToDictionary(
                l => l,
                l =>
                    (IReadOnlyList<string>)(
                        l == "sites" ? ["skerry", "hallan"]
                        : l == "employmentKinds" ? ["permanent", "seasonal"]
                        : [.. Enumerable.Range(0, 200).Select(i => $"{l}-{i}")]
                    )
            );
        return new ConfigurationQuestion(
            fields,
            Stages,
            lists,
            ShippedFields.Roles,
            ShippedFields.All,
            new Dictionary<string, IReadOnlyDictionary<string, int>>()
        );
    }

    private static FieldDefinition Own(int i, FieldType type) =>
        new()
        {
            Key = $"own_{i}",
            Type = type,
            Section = "work",
            Labels = new Dictionary<string, string> { ["en"] = $"Own field {i}", ["de"] = $"Eigenes Feld {i}" },
            Access = ShippedFields.Find("room")!.Access,
        };

    private static RecordQuestion Record(IReadOnlyList<FieldDefinition> fields, string[] stages)
    {
        var values = fields
            .Where((f, i) => i % 3 != 0 && f.Default is null && f.Options is null)
            .ToDictionary(
                f => f.Key,
                f =>
                    f.Type switch
                    {
                        FieldType.Number or FieldType.Money => JsonElement.Parse("37.5"),
                        FieldType.Date => JsonElement.Parse("\"2027-03-22\""),
                        FieldType.YesNo => JsonElement.Parse("true"),
                        FieldType.Choices => JsonElement.Parse("[\"certificates-1\"]"),
                        _ => JsonElement.Parse("\"skerry\""),
                    }
            );
        var lists = new Dictionary<string, IReadOnlySet<string>> { ["sites"] = new HashSet<string> { "skerry" } };
        var rights = FieldRights.OfRoles(FieldSet.Read(fields, stages).Answer!, ["coordinator"]);
        return new RecordQuestion(values, [.. values.Keys], ["site", "pay_rate"], rights, "arrive", new LocalDate(2027, 3, 1), lists);
    }
}
