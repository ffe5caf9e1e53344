using Fid.Acts;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.People;

/// <summary>Files of records: given first, then named by a field when the record is saved; shown to whoever may see the field.</summary>
internal static class Files
{
    public static void MapFiles(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/files", Give)
            .WhoMay(Actions.See, Things.Record)
            .WithMetadata(new LargeBody(FileFit.Largest))
            .ProducesProblem(400)
            .ProducesProblem(413);
        app.MapGet("/api/records/{id:guid}/fields/{key}/file", Show).WhoMay(Actions.See, Things.Record).ProducesProblem(404);
    }

    /// <summary>Takes a file as the body. Nobody sees it until a field of a record names it. Where the field it is meant for is said, it is
    /// held against that at once; it is again when the record is saved.</summary>
    private static async Task<Results<Ok<GivenFile>, ProblemHttpResult>> Give(
        string? fileName,
        string? field,
        HttpRequest request,
        Actor actor,
        GiveFile give,
        FileScanner scanner,
        CancellationToken cancellation
    )
    {
        if (request.ContentLength > FileFit.Largest)
            return TooLarge();
        using var content = new MemoryStream();
        try
        {
            await request.Body.CopyToAsync(content, cancellation);
        }
        catch (BadHttpRequestException e) when (e.StatusCode == StatusCodes.Status413PayloadTooLarge)
        {
            return TooLarge();
        }
        if (content.Length > FileFit.Largest)
            return TooLarge();
        var given = new GiveFileRequest(fileName, field, content.ToArray());
        if (await give.CheckAsync(given, actor, cancellation) is { } wrong)
            return Problems.Of(wrong);
        if (await scanner.FindAsync(given.Content, cancellation) is { } found)
            return found;
        return (await give.DoAsync(given, actor, cancellation)).IsDone(out var file, out var refusal)
            ? TypedResults.Ok(new GivenFile(file.Id, file.Name, file.MediaType, file.Size))
            : Problems.Of(refusal);
    }

    /// <summary>The file a field of a record names, or named once.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Show(
        Guid id,
        string key,
        Guid file,
        Actor actor,
        FidDb db,
        HttpContext http,
        CancellationToken cancellation
    )
    {
        if (await RecordAccess.FindAsync(actor, db, id, tracked: false, cancellation) is not var (employment, record))
            return Problems.NotFound();
        var reader = await Reader.OfAsync(actor, db, cancellation);
        if (reader.Fields.Set.Find(key) is not { Type: FieldType.File } || !reader.On(record).Sees(key))
            return Problems.NotFound();
        var (named, column, row) = (file.ToString(), FieldAddress.FieldOf(key), FieldAddress.Read(key).RowId);
        var rows = await db
            .RecordValues.AsNoTracking()
            .Where(v => v.Field == column && v.RowId == row && (v.OwnerId == employment.Id || v.OwnerId == employment.PersonId))
            .Select(v => v.Value)
            .ToListAsync(cancellation);
        if (
            !rows.Exists(v => v.ToString() == named)
            || await db.StoredFiles.AsNoTracking().FirstOrDefaultAsync(f => f.Id == file, cancellation) is not { } stored
        )
            return Problems.NotFound();
        return Answer(stored, http);
    }

    /// <summary>How files are called, by their ids; those that are not there are left out.</summary>
    internal static async Task<Dictionary<Guid, string>> NamesAsync(FidDb db, IEnumerable<Guid> files, CancellationToken cancellation)
    {
        var ids = files.Distinct().ToArray();
        return ids.Length == 0
            ? []
            : await db.StoredFiles.Where(f => ids.Contains(f.Id)).Select(f => new { f.Id, f.Name }).ToDictionaryAsync(f => f.Id, f => f.Name, cancellation);
    }

    /// <summary>A file as an answer.</summary>
    internal static FileContentHttpResult Answer(StoredFile stored, HttpContext http)
    {
        // What is shown in the browser runs nothing and reaches nothing.
        // A sandbox would keep the browser's own viewer of PDF from opening.
        http.Response.Headers.ContentSecurityPolicy =
            $"default-src 'none'; style-src 'unsafe-inline'{(stored.MediaType == "application/pdf" ? "" : "; sandbox")}";
        return TypedResults.File(stored.Content, stored.MediaType, stored.MediaType == FileKind.Unknown ? stored.Name : null);
    }

    private static ProblemHttpResult TooLarge() =>
        Problems.Make(StatusCodes.Status413PayloadTooLarge, "too-large", "The file is larger than 10 MB. Choose a smaller one.");
}

/// <summary>A file that was given.</summary>
/// <param name="Id">What to save as the value of the field.</param>
public sealed record GivenFile(Guid Id, string Name, string MediaType, int Size);
