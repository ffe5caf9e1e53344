namespace Fid.Core.Lists;

/// <summary>What became of something entered: a value, nothing, or what is wrong with it.</summary>
/// <param name="Value">The value as it is kept: a string, a decimal, a bool, an array of codes, or an array of parts; null for nothing.</param>
/// <param name="Code">The kind of mistake; null when there is none.</param>
/// <param name="Message">A sentence saying what to do about it.</param>
public readonly record struct CellValue(object? Value, string? Code, string? Message)
{
    /// <summary>Nothing was entered.</summary>
    public static CellValue Empty => default;

    /// <summary>Whether something is wrong.</summary>
    public bool IsWrong => Code is not null;

    /// <summary>A value that is there already.</summary>
    public static CellValue Kept(object value) => new(value, null, null);

    internal static CellValue Of(object value) => new(value, null, null);

    internal static CellValue Wrong(string code, string message) => new(null, code, message);
}
