using System.Collections;
using System.Globalization;
using NCalc;
using NCalc.Factories;
using NCalc.Visitors;

namespace Fid.Core.Formulas;

/// <summary>The expression library's own evaluation, with fields for names and with our functions beside its own.</summary>
internal sealed class RecordFormulaVisitor(FormulaFacts facts) : EvaluationVisitor(Nothing, Options, CultureInfo.InvariantCulture, Factory, default)
{
    /// <summary>The longest text a formula comes to on its way, in characters: longer than any field holds.</summary>
    public const int LongestText = 10_000;

    private static readonly ExpressionContext Nothing = ParsedFormula.Express("0").Context;
    private static readonly ExpressionEvaluationOptions Options = ParsedFormula.Express("0").EvaluationOptions;
    private static readonly IEvaluationVisitorFactory Factory = new EvaluationVisitorFactory();

    // A text joined to itself again and again, by formulas that read each other, would double with each of them.
    private static object? Bounded(object? value) =>
        value is string { Length: > LongestText } ? throw new ArgumentException($"A text has at most {LongestText} characters.") : value;

    public override object? Visit(Identifier identifier) => ParsedFormula.IsNothing(identifier.Name) ? null : facts.ValueOf(identifier.Name);

    public override object? Visit(Function function)
    {
        var arguments = function.Parameters;
        if (function.Identifier.Name.Equals("firstOf", StringComparison.OrdinalIgnoreCase))
        {
            foreach (var argument in arguments)
                if (argument.Accept(this) is var value && !RecordFunctions.IsEmpty(value))
                    return value;
            return null;
        }
        if (!RecordFunctions.Arguments.TryGetValue(function.Identifier.Name, out var count))
            return base.Visit(function);
        if (arguments.Count != count)
            throw new ArgumentException("Another number of arguments is needed.");
        return RecordFunctions.Call(
            function.Identifier.Name,
            count > 0 ? arguments[0].Accept(this) : null,
            count > 1 ? arguments[1].Accept(this) : null,
            facts
        );
    }

    // An empty text and no value are the same thing in a record; and one text in brackets is a list of one, not a text to look through.
    public override object? Visit(BinaryExpression expression)
    {
        var isMembership = expression.Type is BinaryExpressionType.In or BinaryExpressionType.NotIn && expression.RightExpression is not LogicalExpressionList;
        if (expression.Type is BinaryExpressionType.Like or BinaryExpressionType.NotLike)
            return Likeness.Matches(expression.LeftExpression.Accept(this), expression.RightExpression.Accept(this))
                == (expression.Type == BinaryExpressionType.Like);
        if (!isMembership && expression.Type is not (BinaryExpressionType.Equal or BinaryExpressionType.NotEqual))
            return Bounded(base.Visit(expression));
        var (left, right) = (expression.LeftExpression.Accept(this), expression.RightExpression.Accept(this));
        if (isMembership)
            return (right is List<object?> list ? list.Contains(left) : left is not null && left.Equals(right)) == (expression.Type == BinaryExpressionType.In);
        if (RecordFunctions.IsEmpty(left) || RecordFunctions.IsEmpty(right))
            return RecordFunctions.IsEmpty(left) == RecordFunctions.IsEmpty(right) == (expression.Type == BinaryExpressionType.Equal);
        if (left is string a && right is string b)
            return a == b == (expression.Type == BinaryExpressionType.Equal);
        if (left is ICollection || right is ICollection)
            return Equals(left, right) == (expression.Type == BinaryExpressionType.Equal);
        // Compared as the library does, but by the values: to compute both sides anew would double the work at every level.
        return base.Visit(new BinaryExpression(expression.Type, new ValueExpression(left!), new ValueExpression(right!)));
    }
}
