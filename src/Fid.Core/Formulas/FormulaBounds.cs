using NCalc;
using NCalc.Visitors;

namespace Fid.Core.Formulas;

/// <summary>Holds a formula to what cannot run away: so deep, and no powers, factorials or shifts.</summary>
internal sealed class FormulaBounds : ILogicalExpressionVisitor<string?>
{
    /// <summary>Stands for a power, which has a message of its own.</summary>
    public const string Power = "**";

    private readonly int _deepest;
    private int _depth;

    private FormulaBounds(int deepest) => _deepest = deepest;

    /// <summary>What goes beyond the bounds, or null.</summary>
    public static string? Check(LogicalExpression root, int deepest) => root.Accept(new FormulaBounds(deepest));

    /// <inheritdoc/>
    public string? Visit(TernaryExpression expression) => Inside(expression.LeftExpression, expression.MiddleExpression, expression.RightExpression);

    /// <inheritdoc/>
    public string? Visit(BinaryExpression expression) =>
        expression.Type switch
        {
            BinaryExpressionType.Exponentiation => Power,
            BinaryExpressionType.BitwiseAnd
            or BinaryExpressionType.BitwiseOr
            or BinaryExpressionType.BitwiseXOr
            or BinaryExpressionType.LeftShift
            or BinaryExpressionType.RightShift => "Signs for single bits cannot be used. Use and, or.",
            _ => Inside(expression.LeftExpression, expression.RightExpression),
        };

    /// <inheritdoc/>
    public string? Visit(UnaryExpression expression) =>
        expression.Type switch
        {
            UnaryExpressionType.Factorial => "Factorials cannot be used.",
            UnaryExpressionType.BitwiseNot => "Signs for single bits cannot be used. Use not.",
            _ => Inside(expression.Expression),
        };

    /// <inheritdoc/>
    public string? Visit(ValueExpression expression) => null;

    /// <inheritdoc/>
    public string? Visit(Function function) => Inside([.. function.Parameters]);

    /// <inheritdoc/>
    public string? Visit(Identifier identifier) => null;

    /// <inheritdoc/>
    public string? Visit(LogicalExpressionList list) => Inside([.. list]);

    private string? Inside(params LogicalExpression[] parts)
    {
        if (++_depth > _deepest)
            return $"A formula may be nested {_deepest} deep.";
        string? breach = null;
        foreach (var part in parts)
            breach ??= part.Accept(this);
        _depth--;
        return breach;
    }
}
