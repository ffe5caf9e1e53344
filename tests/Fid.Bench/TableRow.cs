namespace Fid.Bench;

/// <summary>Rows of the Markdown table that ops/bench puts into docs/performance.md.</summary>
internal static class TableRow
{
    /// <summary>One row: what was done, how long it took, and what it may take at most.</summary>
    public static string Of(FormattableString what, FormattableString took, FormattableString goal) =>
        $"| {FormattableString.Invariant(what)} | {FormattableString.Invariant(took)} | {FormattableString.Invariant(goal)} |";
}
