using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace Fid.Mutants;

/// <summary>
/// Plants mistakes into a file, all of them at once and each behind a switch of its own, so that the code is compiled once: a
/// comparison flipped or off by one, a condition dropped, a sum turned into a difference, a choice turned round.
/// </summary>
internal sealed class Planter(SemanticModel model, string file, List<Mutant> planted) : CSharpSyntaxRewriter
{
    private static readonly Dictionary<SyntaxKind, SyntaxKind[]> Turned = new()
    {
        [SyntaxKind.LessThanExpression] = [SyntaxKind.LessThanOrEqualExpression, SyntaxKind.GreaterThanExpression],
        [SyntaxKind.LessThanOrEqualExpression] = [SyntaxKind.LessThanExpression, SyntaxKind.GreaterThanExpression],
        [SyntaxKind.GreaterThanExpression] = [SyntaxKind.GreaterThanOrEqualExpression, SyntaxKind.LessThanExpression],
        [SyntaxKind.GreaterThanOrEqualExpression] = [SyntaxKind.GreaterThanExpression, SyntaxKind.LessThanExpression],
        [SyntaxKind.EqualsExpression] = [SyntaxKind.NotEqualsExpression],
        [SyntaxKind.NotEqualsExpression] = [SyntaxKind.EqualsExpression],
        [SyntaxKind.AddExpression] = [SyntaxKind.SubtractExpression],
        [SyntaxKind.SubtractExpression] = [SyntaxKind.AddExpression],
        [SyntaxKind.MultiplyExpression] = [SyntaxKind.DivideExpression],
    };

    private static readonly Dictionary<SyntaxKind, string> Signs = new()
    {
        [SyntaxKind.LessThanExpression] = "<",
        [SyntaxKind.LessThanOrEqualExpression] = "<=",
        [SyntaxKind.GreaterThanExpression] = ">",
        [SyntaxKind.GreaterThanOrEqualExpression] = ">=",
        [SyntaxKind.EqualsExpression] = "==",
        [SyntaxKind.NotEqualsExpression] = "!=",
        [SyntaxKind.AddExpression] = "+",
        [SyntaxKind.SubtractExpression] = "-",
        [SyntaxKind.DivideExpression] = "/",
    };

    public override SyntaxNode? VisitBinaryExpression(BinaryExpressionSyntax node)
    {
        var inside = (BinaryExpressionSyntax)base.VisitBinaryExpression(node)!;
        if (!MayBeTurned(node))
            return inside;
        if (node.Kind() is SyntaxKind.LogicalAndExpression or SyntaxKind.LogicalOrExpression)
            return WithoutOne(node, inside);
        if (!Turned.TryGetValue(node.Kind(), out var kinds) || Declares(node) || IsOfOtherThings(node))
            return inside;
        return kinds.Aggregate((ExpressionSyntax)inside, (whole, kind) => Switched(node, whole, Plain(kind, inside), Plain(kind, node)));
    }

    // A step of one that is none: the day before or after, the next in a list.
    public override SyntaxNode? VisitArgument(ArgumentSyntax node)
    {
        if (
            node.Expression.ToString() is not ("1" or "-1")
            || model.GetTypeInfo(node.Expression).ConvertedType?.SpecialType
                is not (SpecialType.System_Int32 or SpecialType.System_Int64 or SpecialType.System_Decimal or SpecialType.System_Double)
            || !MayBeReplaced(node.Expression)
            || node.Ancestors().Any(a => a is ElementAccessExpressionSyntax)
        )
            return base.VisitArgument(node);
        var number = Plant(node, node.Parent?.Parent?.ToString() ?? node.ToString(), "the same with 0");
        return node.WithExpression(Parse($"(global::Mutants.Is({number}) ? 0 : {node.Expression})"));
    }

    public override SyntaxNode? VisitConditionalExpression(ConditionalExpressionSyntax node)
    {
        var inside = (ConditionalExpressionSyntax)base.VisitConditionalExpression(node)!;
        if (!MayBeTurned(node) || Declares(node.Condition))
            return inside;
        var number = Plant(node, $"{node.Condition} ?", $"!({node.Condition}) ?");
        return inside.WithCondition(Parse($"(global::Mutants.Is({number}) != ({inside.Condition}))"));
    }

    public override SyntaxNode? VisitIfStatement(IfStatementSyntax node)
    {
        var inside = (IfStatementSyntax)base.VisitIfStatement(node)!;
        if (!MayBeTurned(node.Condition) || Declares(node.Condition))
            return inside;
        var number = Plant(node, $"if ({node.Condition})", "if (false)");
        return inside.WithCondition(Parse($"!global::Mutants.Is({number}) && ({inside.Condition})"));
    }

    // One of two conditions dropped, each in turn.
    private ExpressionSyntax WithoutOne(BinaryExpressionSyntax node, BinaryExpressionSyntax inside)
    {
        var (left, right, isAnd) = ($"{inside.Left}", $"{inside.Right}", node.IsKind(SyntaxKind.LogicalAndExpression));
        if (!Declares(node.Left))
            left = Dropped(Plant(node, $"{node}", $"{node.Right}"), left);
        if (!Declares(node.Right))
            right = Dropped(Plant(node, $"{node}", $"{node.Left}"), right);
        return Parse($"({left} {node.OperatorToken.Text} {right})");

        string Dropped(int number, string condition) =>
            isAnd ? $"(global::Mutants.Is({number}) || ({condition}))" : $"(!global::Mutants.Is({number}) && ({condition}))";
    }

    private ExpressionSyntax Switched(SyntaxNode node, ExpressionSyntax whole, string turned, string shown) =>
        Parse($"(global::Mutants.Is({Plant(node, node.ToString(), shown)}) ? ({turned}) : ({whole}))");

    private int Plant(SyntaxNode node, string was, string turned)
    {
        var line = node.GetLocation().GetLineSpan().StartLinePosition.Line + 1;
        planted.Add(new Mutant(planted.Count + 1, file, line, Short(was), Short(turned)));
        return planted.Count;
    }

    private static string Plain(SyntaxKind kind, BinaryExpressionSyntax of) => $"{of.Left.WithoutTrivia()} {Signs[kind]} {of.Right.WithoutTrivia()}";

    private static ExpressionSyntax Parse(string text) => SyntaxFactory.ParseExpression(text.ReplaceLineEndings(" "));

    private static string Short(string text)
    {
        var line = string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        return line.Length <= 120 ? line : line[..120] + "…";
    }

    // What the compiler or the database reads instead of running it stays as it is.
    private bool MayBeTurned(ExpressionSyntax node) =>
        !model.GetConstantValue(node).HasValue
        && MayBeReplaced(node)
        && !node.DescendantNodes().OfType<LiteralExpressionSyntax>().Any(l => l.Token.Text.StartsWith("\"\"\"", StringComparison.Ordinal))
        && !node.DescendantNodes().Any(d => d is InterpolatedStringExpressionSyntax or SwitchExpressionSyntax or AnonymousFunctionExpressionSyntax);

    private bool MayBeReplaced(ExpressionSyntax node) =>
        !node.Ancestors()
            .Any(a =>
                a is AttributeSyntax or ParameterSyntax or InterpolatedStringExpressionSyntax or EnumMemberDeclarationSyntax
                || (a is LambdaExpressionSyntax && model.GetTypeInfo(a).ConvertedType?.Name == "Expression")
                || (a is FieldDeclarationSyntax field && field.Modifiers.Any(SyntaxKind.ConstKeyword))
            );

    // A variable declared in a condition has to be assigned, whatever is switched on.
    private static bool Declares(SyntaxNode node) =>
        node.DescendantNodesAndSelf().Any(d => d is SingleVariableDesignationSyntax or DeclarationExpressionSyntax)
        || node.AncestorsAndSelf().OfType<IsPatternExpressionSyntax>().Any(p => p.Pattern.DescendantNodesAndSelf().Contains(node));

    // What is reckoned with other things than numbers, such as texts and days, cannot be turned round.
    private bool IsOfOtherThings(BinaryExpressionSyntax node) =>
        node.Kind() is SyntaxKind.AddExpression or SyntaxKind.SubtractExpression or SyntaxKind.MultiplyExpression
        && !(IsNumber(node) && IsNumber(node.Left) && IsNumber(node.Right));

    private bool IsNumber(ExpressionSyntax node) =>
        model.GetTypeInfo(node).Type is { SpecialType: >= SpecialType.System_SByte and <= SpecialType.System_Double };
}
