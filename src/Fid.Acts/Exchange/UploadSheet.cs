using Fid.Core.Rights;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Exchange;

/// <summary>Takes a sheet as it comes, in sealed pieces; it is read, matched and checked afterwards.</summary>
public sealed class UploadSheet(FidDb db, ImportFiles files, SheetSeals seals, ImportTargets targets)
{
    /// <returns>The import.</returns>
    public async Task<ActResult<ImportRun>> DoAsync(UploadSheetRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Sheet))
            return Refusal.Forbidden;
        if (await targets.FindAsync(request.List, actor, cancellation) is null)
            return Refusal.Invalid("/list", "unknown-list", "Choose a list.");
        var name = TextRules.TryClean(request.FileName ?? "", out var clean) && clean.Length is > 0 and <= 200 ? clean : "sheet";
        var author = actor.Author("exchange");
        // Dropped until it is here as a whole: nobody begins to read half a file, and what is left of one is taken away.
        var run = new ImportRun
        {
            List = request.List,
            FileName = name,
            Size = 0,
            At = author.At,
            ById = actor.Account,
            ByName = author.Name,
            State = ImportState.Dropped,
            SealedKey = seals.Make(),
        };
        db.ImportRuns.Add(run);
        await db.SaveChangesAsync(cancellation);
        long? size = 0;
        try
        {
            size = await files.KeepAsync(run, request.Content, cancellation);
        }
        finally
        {
            if (size is null or 0)
            {
                db.ImportRuns.Remove(run);
                await db.SaveChangesAsync(CancellationToken.None);
            }
        }
        if (size is not > 0)
            return size is null ? TooLarge : Refusal.Invalid("", "missing", "The file is empty. Choose another.");
        (run.Size, run.State) = (size.Value, ImportState.Reading);
        ImportInHand.GoOn(db, run.Id, author.At);
        await db.SaveChangesAsync(cancellation);
        return await db.ImportRuns.AsNoTracking().SingleAsync(r => r.Id == run.Id, cancellation);
    }

    /// <summary>More than a sheet may have.</summary>
    public static Refusal TooLarge { get; } =
        new(
            RefusalKind.TooLarge,
            "file-too-large",
            $"A file may have at most {SheetFile.LargestFile / 1_000_000} MB. Split it, or take away what is not needed.",
            []
        );
}

/// <param name="List">The key of what it goes into.</param>
public sealed record UploadSheetRequest(string List, string? FileName, Stream Content);
