using Fid.Core.Formulas;
using NCalc;
using NCalc.Visitors;

namespace Fid.Core.Fields;

/// <summary>What a formula, or a part of one, comes to.</summary>
internal enum FormulaKind
{
    /// <summary>Not known beforehand.</summary>
    Unknown,

    /// <summary>No value.</summary>
    Nothing,

    /// <summary>A text.</summary>
    Text,

    /// <summary>A date.</summary>
    Date,

    /// <summary>A number.</summary>
    Number,

    /// <summary>True or false.</summary>
    YesNo,

    /// <summary>A list.</summary>
    List,
}

/// <summary>A part of a formula: what it comes to, the field it is, the texts it can be.</summary>
/// <param name="Kind">What it comes to.</param>
/// <param name="Field">The field, where it is nothing but one.</param>
/// <param name="Literals">The texts it comes to that are written out in it.</param>
/// <param name="IsLiteral">Whether it is nothing but a text written out.</param>
internal sealed record FormulaPart(FormulaKind Kind, FieldDefinition? Field = null, IReadOnlyList<string>? Literals = null, bool IsLiteral = false)
{
    /// <summary>Whether it can serve as a date.</summary>
    public bool IsDate =>
        Kind is FormulaKind.Date or FormulaKind.Unknown or FormulaKind.Nothing
        || (IsLiteral && RecordFormula.IsDate(Literals![0], out _))
        || (Kind == FormulaKind.Text && Field is not null && !Field.IsChosen);
}

/// <summary>Works out, without computing, what a formula comes to, and what in it does not fit together.</summary>
internal sealed class FormulaTyping : ILogicalExpressionVisitor<FormulaPart>
{
    private static readonly FormulaPart Number = new(FormulaKind.Number),
        YesNo = new(FormulaKind.YesNo),
        Date = new(FormulaKind.Date),
        Unknown = new(FormulaKind.Unknown);

    private readonly Func<string, FormulaPart> _partOf;
    private readonly List<string> _clashes = [];
    private readonly List<(FieldDefinition Field, string Text)> _compared = [];

    private FormulaTyping(Func<string, FormulaPart> partOf) => _partOf = partOf;

    /// <summary>What a formula comes to; sentences for what does not fit together; and the texts that fields are compared with.</summary>
    /// <param name="formula">The formula.</param>
    /// <param name="partOf">What a name comes to.</param>
    public static (FormulaPart Result, IReadOnlyList<string> Clashes, IReadOnlyList<(FieldDefinition Field, string Text)> Compared) Of(
        RecordFormula formula,
        Func<string, FormulaPart> partOf
    )
    {
        var typing = new FormulaTyping(partOf);
        return (formula.Root.Accept(typing), typing._clashes, typing._compared);
    }

    /// <inheritdoc/>
    public FormulaPart Visit(Identifier identifier) =>
        ParsedFormula.IsNothing(identifier.Name) ? new FormulaPart(FormulaKind.Nothing) : _partOf(identifier.Name);

    /// <inheritdoc/>
    public FormulaPart Visit(ValueExpression expression) =>
        expression.Value switch
        {
            string text => text.Length == 0 ? new FormulaPart(FormulaKind.Nothing) : new FormulaPart(FormulaKind.Text, Literals: [text], IsLiteral: true),
            bool => YesNo,
            _ => Number,
        };

    /// <inheritdoc/>
    public FormulaPart Visit(LogicalExpressionList list)
    {
        var parts = list.Select(l => l.Accept(this)).ToList();
        return new FormulaPart(FormulaKind.List, Literals: [.. parts.Where(p => p.IsLiteral).SelectMany(p => p.Literals!)]);
    }

    /// <inheritdoc/>
    public FormulaPart Visit(UnaryExpression expression)
    {
        var part = expression.Expression.Accept(this);
        if (expression.Type == UnaryExpressionType.Not)
        {
            Want(part, FormulaKind.YesNo, "not");
            return YesNo;
        }
        Want(part, FormulaKind.Number, "a sign");
        return Number;
    }

    /// <inheritdoc/>
    public FormulaPart Visit(TernaryExpression expression)
    {
        Want(expression.LeftExpression.Accept(this), FormulaKind.YesNo, "?");
        return Either(expression.MiddleExpression.Accept(this), expression.RightExpression.Accept(this));
    }

    /// <inheritdoc/>
    public FormulaPart Visit(BinaryExpression expression)
    {
        var (left, right) = (expression.LeftExpression.Accept(this), expression.RightExpression.Accept(this));
        switch (expression.Type)
        {
            case BinaryExpressionType.And or BinaryExpressionType.Or:
                Want(left, FormulaKind.YesNo, "and, or");
                Want(right, FormulaKind.YesNo, "and, or");
                return YesNo;
            case BinaryExpressionType.Equal or BinaryExpressionType.NotEqual:
                Compare(left, right, ordered: false);
                return YesNo;
            case BinaryExpressionType.Lesser or BinaryExpressionType.LesserOrEqual or BinaryExpressionType.Greater or BinaryExpressionType.GreaterOrEqual:
                Compare(left, right, ordered: true);
                return YesNo;
            case BinaryExpressionType.In or BinaryExpressionType.NotIn:
                // One text in brackets is read as that text.
                if (right.Kind is not (FormulaKind.List or FormulaKind.Unknown) && !right.IsLiteral)
                    _clashes.Add("What stands right of “in” is to be a list, such as ('a', 'b').");
                Member(left, right);
                return YesNo;
            case BinaryExpressionType.Like or BinaryExpressionType.NotLike:
                Want(left, FormulaKind.Text, "like");
                Want(right, FormulaKind.Text, "like");
                return YesNo;
            case BinaryExpressionType.Coalesce:
                return Either(left, right);
            case BinaryExpressionType.Plus when left.Kind is FormulaKind.Text or FormulaKind.Date || right.Kind is FormulaKind.Text or FormulaKind.Date:
                if (left.Kind == FormulaKind.Date || right.Kind == FormulaKind.Date)
                    _clashes.Add("A date cannot be added to. Use addDays(date, days).");
                return new FormulaPart(FormulaKind.Text);
            default:
                if (left.Kind == FormulaKind.Date && right.Kind == FormulaKind.Date)
                    _clashes.Add("Dates cannot be taken from each other. Use ageOn, or addDays.");
                else
                {
                    Want(left, FormulaKind.Number, "a calculation");
                    Want(right, FormulaKind.Number, "a calculation");
                }
                return Number;
        }
    }

    /// <inheritdoc/>
    public FormulaPart Visit(Function function)
    {
        var (name, parts) = (function.Identifier.Name, function.Parameters.Select(p => p.Accept(this)).ToList());
        switch (name.ToUpperInvariant())
        {
            case "TODAY":
                Count(0);
                return Date;
            case "ADDDAYS" or "ADDMONTHS" or "ADDWORKINGDAYS":
                if (!Count(2))
                    return Date;
                WantDate(parts[0]);
                Want(parts[1], FormulaKind.Number, name);
                return Date;
            case "AGEON":
                if (!Count(2))
                    return Number;
                WantDate(parts[0]);
                WantDate(parts[1]);
                return Number;
            case "FIRSTOF":
                if (parts.Count > 0)
                    return parts.Aggregate(Either);
                _clashes.Add("firstOf needs at least one argument.");
                return Unknown;
            case "IF":
                if (!Count(3))
                    return Unknown;
                Want(parts[0], FormulaKind.YesNo, "if");
                return Either(parts[1], parts[2]);
            case "IFS":
                if (parts.Count < 3 || parts.Count % 2 == 0)
                {
                    _clashes.Add("ifs needs pairs of a condition and a value, and a last value.");
                    return Unknown;
                }
                for (var i = 0; i + 1 < parts.Count; i += 2)
                    Want(parts[i], FormulaKind.YesNo, "ifs");
                return parts.Where((_, i) => i % 2 == 1).Append(parts[^1]).Aggregate(Either);
            case "IN":
                if (parts.Count < 2)
                {
                    _clashes.Add("in needs what to look for, and what to look in.");
                    return YesNo;
                }
                Member(parts[0], new FormulaPart(FormulaKind.List, Literals: [.. parts.Skip(1).Where(p => p.IsLiteral).SelectMany(p => p.Literals!)]));
                return YesNo;
            default:
                Count(
                    name.Equals("Max", StringComparison.OrdinalIgnoreCase)
                    || name.Equals("Min", StringComparison.OrdinalIgnoreCase)
                    || name.Equals("Round", StringComparison.OrdinalIgnoreCase)
                        ? 2
                        : 1
                );
                foreach (var part in parts)
                    Want(part, FormulaKind.Number, name);
                return Number;
        }

        bool Count(int wanted)
        {
            if (parts.Count == wanted)
                return true;
            _clashes.Add(
                $"{name} takes {(wanted == 0 ? "nothing" : wanted == 1 ? "one argument" : $"{wanted} arguments")} in its brackets, and "
                    + $"{parts.Count} stand there."
            );
            return false;
        }
    }

    private static FormulaPart Either(FormulaPart a, FormulaPart b)
    {
        var kind =
            a.IsLiteral && b.IsLiteral && a.IsDate && b.IsDate ? FormulaKind.Date
            : a.Kind == b.Kind || b.Kind == FormulaKind.Nothing ? a.Kind
            : a.Kind == FormulaKind.Nothing ? b.Kind
            : (a.IsDate && b.Kind == FormulaKind.Date) || (b.IsDate && a.Kind == FormulaKind.Date) ? FormulaKind.Date
            : FormulaKind.Unknown;
        return new FormulaPart(kind, null, [.. a.Literals ?? [], .. b.Literals ?? []]);
    }

    private void Want(FormulaPart part, FormulaKind kind, string by)
    {
        if (part.Kind == kind || part.Kind is FormulaKind.Unknown or FormulaKind.Nothing)
            return;
        if (kind == FormulaKind.Text && part.Kind == FormulaKind.Date)
            return;
        _clashes.Add($"{Name(part)} is {Word(part.Kind)}, and {by} needs {Word(kind)}.");
    }

    private void WantDate(FormulaPart part)
    {
        if (!part.IsDate)
            _clashes.Add($"{Name(part)} is {(part.IsLiteral ? "no date such as 2027-03-01" : Word(part.Kind))}, and a date is needed there.");
    }

    private void Compare(FormulaPart left, FormulaPart right, bool ordered)
    {
        Note(left, right);
        Note(right, left);
        if (left.Kind is FormulaKind.Unknown or FormulaKind.Nothing || right.Kind is FormulaKind.Unknown or FormulaKind.Nothing)
            return;
        if (left.Kind == FormulaKind.List || right.Kind == FormulaKind.List)
            _clashes.Add(
                $"{Name(left.Kind == FormulaKind.List ? left : right)} is a list. Ask for a member of it: 'a' in "
                    + $"{Name(left.Kind == FormulaKind.List ? left : right)}."
            );
        else if (left.Kind == FormulaKind.Date || right.Kind == FormulaKind.Date)
        {
            if (!left.IsDate || !right.IsDate)
                _clashes.Add($"{Name(left)} and {Name(right)} cannot be compared: one is a date, the other is not.");
        }
        else if (left.Kind != right.Kind)
            _clashes.Add($"{Name(left)} is {Word(left.Kind)} and {Name(right)} is {Word(right.Kind)}: they are never equal.");
        else if (ordered && left.Kind == FormulaKind.YesNo)
            _clashes.Add($"{Name(left)} is yes or no: there is no greater and lesser of them.");
    }

    private void Member(FormulaPart one, FormulaPart list)
    {
        if (one.Field is { } field)
            foreach (var literal in list.Literals ?? [])
                _compared.Add((field, literal));
        else if (one.IsLiteral && list.Field is { } listed)
            _compared.Add((listed, one.Literals![0]));
    }

    private void Note(FormulaPart field, FormulaPart literal)
    {
        if (field.Field is { } of && literal.IsLiteral)
            _compared.Add((of, literal.Literals![0]));
    }

    private static string Name(FormulaPart part) => part.Field?.Key ?? (part.IsLiteral ? $"'{part.Literals![0]}'" : "what stands there");

    private static string Word(FormulaKind kind) =>
        kind switch
        {
            FormulaKind.Text => "a text",
            FormulaKind.Date => "a date",
            FormulaKind.Number => "a number",
            FormulaKind.YesNo => "yes or no",
            FormulaKind.List => "a list",
            _ => "nothing",
        };
}
