using Fid.Core.Fields;
using Fid.Core.Formulas;

namespace Fid.Core.Approvals;

/// <summary>Looks through the approvals of a configuration for what would not work: findings in their order, each about the approval's
/// fields, with the path to what is wrong in the document, without the slash before it, as its part.</summary>
public static class ApprovalCheck
{
    /// <summary>How many approvals there can be, and how many of one are asked one after the other.</summary>
    public const int Most = 100,
        MostSteps = 8;

    /// <summary>The names by which a formula reads the change itself; no field that goes by them is read in it.</summary>
    public const string Old = "old",
        New = "new";

    /// <summary>The names by which a formula reads how far the pay that a record would hold lies outside the band of its job, and from the rate that
    /// the template gives: in percent, negative below; 0 within the band. Without a band, or a template, there is nothing to read.</summary>
    public const string OutsideBand = "outside_band",
        FromTemplate = "from_template";

    /// <summary>Both of these.</summary>
    public static IReadOnlyList<string> Distances { get; } = [OutsideBand, FromTemplate];

    /// <summary>What there is to find.</summary>
    /// <param name="configuration">The configuration.</param>
    /// <param name="roles">The roles there are.</param>
    public static IReadOnlyList<Finding> Of(FieldConfiguration configuration, IReadOnlyCollection<string> roles)
    {
        var fields = configuration.Fields.SelectMany(f => f.WithColumns()).DistinctBy(f => f.Key).ToDictionary(f => f.Key, StringComparer.Ordinal);
        var (findings, ids) = (new List<Finding>(), new HashSet<string>(StringComparer.Ordinal));
        if (configuration.Approvals.Count > Most)
            findings.Add(
                new Finding("approvals-too-many", [], $"There can be {Most} approvals, and here are {configuration.Approvals.Count}.", Part: "approvals")
            );
        for (var i = 0; i < configuration.Approvals.Count; i++)
            Look(configuration.Approvals[i], $"approvals/{i}");
        return findings;

        void Look(FieldApproval approval, string part)
        {
            if (!ids.Add(approval.Id))
                Add("duplicate-id", $"{part}/id", $"Two approvals go by “{approval.Id}”. Give one of them another id.");
            if (approval.Fields.Count == 0)
                Add("approval-without-fields", $"{part}/fields", $"“{approval.Label("en")}” asks about no field. Choose at least one.");
            foreach (var field in approval.Fields)
                if (!fields.TryGetValue(field, out var known))
                    Add("unknown-field", $"{part}/fields", $"“{approval.Label("en")}” asks about the field “{field}”, which there is not.");
                else if (known.Type == FieldType.Computed)
                    Add("approval-of-computed", $"{part}/fields", $"“{known.Label("en")}” is computed: nobody changes it, so nobody can be asked.");
            LookAtFormula(approval, $"{part}/when");
            if (approval.By.Count is 0 or > MostSteps)
                Add("approval-without-steps", $"{part}/by", $"“{approval.Label("en")}” has to ask from 1 to {MostSteps}, one after the other.");
            foreach (var by in approval.By)
                if (ApproverChoice.Read(by) is not { } choice)
                    Add("unknown-approver", $"{part}/by", $"“{by}” is nobody to ask: say manager, manager2, role: and a role, or person: and an id.");
                else if (choice.Kind == ApproverKind.Role && !roles.Contains(choice.Name))
                    Add("unknown-role", $"{part}/by", $"“{approval.Label("en")}” asks the role “{choice.Name}”, which there is not.");
                else if (choice.Kind == ApproverKind.Person && !Guid.TryParse(choice.Name, out _))
                    Add("unknown-approver", $"{part}/by", $"“{choice.Name}” is no person. Choose somebody.");

            void Add(string code, string at, string message) =>
                findings.Add(new Finding(code, [.. approval.Fields.Where(fields.ContainsKey)], message, Part: at));
        }

        void LookAtFormula(FieldApproval approval, string part)
        {
            if (approval.When is not { } when)
                return;
            var (formula, mistake) = RecordFormula.Read(when);
            if (formula is null)
                Add("formula-error", $"The condition of “{approval.Label("en")}” cannot be used. {mistake!.Message}", mistake.Character);
            else
                foreach (var name in formula.Names.Where(n => n is not (Old or New) && !Distances.Contains(n)))
                    if (!fields.TryGetValue(name, out var read) || read.IsColumn)
                        Add(
                            "unknown-field",
                            $"The condition of “{approval.Label("en")}” reads the field “{name}”, which there is not.",
                            ParsedFormula.At(when, name)
                        );
                    else if (read.Sensitive)
                        Add(
                            "sealed-field",
                            $"The condition of “{approval.Label("en")}” reads “{read.Label("en")}”, which is kept sealed.",
                            ParsedFormula.At(when, name)
                        );
            if (formula is not null && formula.Names.Any(n => n is Old or New) && approval.Fields.Any(f => fields.TryGetValue(f, out var of) && of.Sensitive))
                Add("sealed-field", $"“{approval.Label("en")}” compares values that are kept sealed. Ask about every change of them.", null);

            void Add(string code, string message, int? character) =>
                findings.Add(new Finding(code, [.. approval.Fields.Where(fields.ContainsKey)], message, Part: part, Character: character));
        }
    }
}
