using System.Text.Json;
using Fid.Core.Json;
using NodaTime.Text;

namespace Fid.Core.Fields;

/// <summary>Reads field definitions as JSON.</summary>
internal static class FieldReader
{
    internal static readonly Choices Types = new(
        "text",
        "longText",
        "number",
        "money",
        "date",
        "yesNo",
        "choice",
        "choices",
        "person",
        "listEntry",
        "file",
        "email",
        "phone",
        "identifier",
        "iban",
        "computed",
        "rows"
    );
    internal static readonly Choices FileGroups = new("picture", "pdf", "document");
    internal static readonly Choices Owners = new("employment", "person");
    internal static readonly Choices Accesses = new("none", "view", "ask", "edit");

    private static readonly Shape Field = new(
        "key",
        "label?",
        "section?",
        "type",
        "of?",
        "options?",
        "list?",
        "parent?",
        "required?",
        "requiredWhen?",
        "access?",
        "default?",
        "pattern?",
        "min?",
        "max?",
        "unique?",
        "onChange?",
        "showWhen?",
        "sensitive?",
        "accepts?",
        "columns?",
        "rowKey?",
        "dates?"
    );
    private static readonly Shape Dates = new("from", "until");
    private static readonly Shape Option = new("value", "label?", "retired?", "within?");
    private static readonly Shape Required = new("from");
    private static readonly Shape Default = new("value?", "formula?");
    private static readonly Shape Rule = new("set", "formula");

    public static FieldDefinition Read(ref QuestionReader question) => Read(ref question, inRows: false);

    private static FieldDefinition Read(ref QuestionReader question, bool inRows)
    {
        var field = new FieldDefinition { Key = "", Type = FieldType.Text };
        var seen = 0u;
        if (question.Object())
            while (question.Property(Field, ref seen) is var at and >= 0)
                field = at switch
                {
                    0 => field with { Key = question.Id() },
                    1 => field with { Labels = ReadLabels(ref question) },
                    2 => field with { Section = question.Text() },
                    3 => field with { Type = (FieldType)question.Choice(Types) },
                    4 => field with { Of = (FieldOwner)question.Choice(Owners) },
                    5 => field with { Options = question.Items(ReadOption) },
                    6 => field with { List = question.Id() },
                    7 => field with { Parent = question.Id() },
                    8 => field with { Required = ReadRequired(ref question) },
                    9 => field with { RequiredWhen = question.Text() },
                    10 => field with { Access = question.Named((ref q) => (FieldAccess)q.Choice(Accesses)) },
                    11 => field with { Default = ReadDefault(ref question) },
                    12 => field with { Pattern = question.Text() },
                    13 => field with { Min = ReadLimit(ref question) },
                    14 => field with { Max = ReadLimit(ref question) },
                    15 => field with { Unique = question.YesNo() },
                    16 => field with { OnChange = question.Items(ReadRule) },
                    17 => field with { ShowWhen = question.Text() },
                    18 => field with { Sensitive = question.YesNo() },
                    20 => field with { Columns = inRows ? NoColumns(ref question) : question.Items((ref q) => Read(ref q, inRows: true)) },
                    21 => field with { RowKey = question.Id() },
                    22 => field with { Dates = ReadDates(ref question) },
                    _ => field with { Accepts = question.Items((ref q) => (FileGroup)q.Choice(FileGroups)) },
                };
        return field;
    }

    // A label in one language needs no object around it.
    public static IReadOnlyDictionary<string, string> ReadLabels(ref QuestionReader question) =>
        question.IsText ? new Dictionary<string, string> { ["en"] = question.Text() } : question.Named((ref q) => q.Text());

    private static FieldOption ReadOption(ref QuestionReader question)
    {
        var option = new FieldOption("", new Dictionary<string, string>());
        var seen = 0u;
        if (question.Object())
            while (question.Property(Option, ref seen) is var at and >= 0)
                option = at switch
                {
                    0 => option with { Value = question.Id() },
                    1 => option with { Labels = ReadLabels(ref question) },
                    2 => option with { Retired = question.YesNo() },
                    _ => option with { Within = question.Items((ref q) => q.Text()) },
                };
        return option;
    }

    private static Requirement ReadRequired(ref QuestionReader question)
    {
        if (question.IsText)
        {
            var word = question.Text();
            if (word == "always")
                return new Requirement(RequirementKind.Always);
            if (word != "never")
                question.Report("bad-value", "This is to be never, always, or an object such as {\"from\": \"arrive\"}.");
            return default;
        }
        var stage = "";
        var seen = 0u;
        if (question.Object())
            while (question.Property(Required, ref seen) >= 0)
                stage = question.Id();
        return Requirement.From(stage);
    }

    private static FieldDefault? ReadDefault(ref QuestionReader question)
    {
        JsonElement? value = null;
        string? formula = null;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Default, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    value = question.Json();
                else
                    formula = question.Text();
            }
        if (value is not null && formula is not null)
            question.Report("bad-value", "Give a value or a formula, not both.");
        return value is null && formula is null ? null : new FieldDefault(value, formula);
    }

    private static IReadOnlyList<FieldDefinition>? NoColumns(ref QuestionReader question)
    {
        question.Report("bad-value", "A column has no columns of its own.");
        question.Json();
        return null;
    }

    private static RowDates ReadDates(ref QuestionReader question)
    {
        var (from, until) = ("", "");
        var seen = 0u;
        if (question.Object())
            while (question.Property(Dates, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    from = question.Id();
                else
                    until = question.Id();
            }
        return new RowDates(from, until);
    }

    private static FieldLimit ReadLimit(ref QuestionReader question) =>
        question.IsNumber ? new FieldLimit(question.Number(), null) : new FieldLimit(null, LocalDatePattern.Iso.Format(question.Date()));

    private static ChangeRule ReadRule(ref QuestionReader question)
    {
        var (set, formula) = ("", "");
        var seen = 0u;
        if (question.Object())
            while (question.Property(Rule, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    set = question.Id();
                else
                    formula = question.Text();
            }
        return new ChangeRule(set, formula);
    }
}
