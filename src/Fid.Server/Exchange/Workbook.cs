using Fid.Acts.Exchange;
using Fid.Core.Fields;
using Fid.Data;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Exchange;

/// <summary>Workbooks to download.</summary>
internal static class Workbook
{
    private const string MediaType = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";
    private const int MostChoices = 5000;

    /// <summary>A workbook of one sheet.</summary>
    /// <param name="fileName">What the file is called, without its ending.</param>
    public static FileContentHttpResult File(string fileName, string title, IReadOnlyList<SheetColumn> columns, IEnumerable<IReadOnlyList<string>> rows)
    {
        using var stream = new MemoryStream();
        SheetWriter.Write(stream, title, columns, rows);
        return TypedResults.File(stream.ToArray(), MediaType, $"{fileName}.xlsx");
    }

    /// <summary>The codes of a list to choose from.</summary>
    public static async Task<IReadOnlyList<string>> CodesAsync(FidDb db, string list, CancellationToken cancellation) =>
        await db.ListEntries.Where(e => e.List == list && !e.Retired).OrderBy(e => e.Code).Select(e => e.Code).Take(MostChoices).ToListAsync(cancellation);

    /// <summary>What can be chosen for a field; nothing for one that is typed.</summary>
    public static async Task<IReadOnlyList<string>> ChoicesAsync(FidDb db, FieldDefinition field, string language, CancellationToken cancellation) =>
        field switch
        {
            { List: { } list } => await CodesAsync(db, list, cancellation),
            { Options: { } options } => [.. options.Where(o => !o.Retired).Select(o => o.Value)],
            { Type: FieldType.YesNo } => YesNo(language),
            _ => [],
        };

    /// <summary>Yes and no to choose from.</summary>
    public static IReadOnlyList<string> YesNo(string language) => language == "de" ? ["ja", "nein"] : ["yes", "no"];
}
