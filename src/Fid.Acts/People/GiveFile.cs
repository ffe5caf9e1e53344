using System.Security.Cryptography;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.People;

namespace Fid.Acts.People;

/// <summary>Keeps a file. Nobody sees it until a field of a record names it; where the field it is meant for is said, it is held
/// against that at once, and is again when the record is saved.</summary>
public sealed class GiveFile(FidDb db)
{
    /// <summary>Why a file does not do for what it is meant for; null where it does.</summary>
    public async Task<Refusal?> CheckAsync(GiveFileRequest request, Actor actor, CancellationToken cancellation)
    {
        if (request.Content.Length == 0)
            return Refusal.Invalid("", "missing", "The file is empty. Choose another.");
        if (request.Field is not { } field)
            return null;
        var reader = await Reader.OfAsync(actor, db, cancellation);
        return
            reader.Fields.Set.Find(field) is { Type: FieldType.File } meant
            && reader.SeesOfAnybody(meant)
            && FileFit.Check(meant, request.Content.Length, FileKind.GroupOf(request.Content)) is { } misfit
            ? Refusal.Invalid(misfit with { Path = "" })
            : null;
    }

    /// <summary>Keeps a file that was checked and scanned.</summary>
    public async Task<ActResult<StoredFile>> DoAsync(GiveFileRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.See, Things.Record))
            return Refusal.Forbidden;
        if (await CheckAsync(request, actor, cancellation) is { } refusal)
            return refusal;
        var author = actor.Author("record");
        var name = TextRules.TryClean(Path.GetFileName(request.Name ?? ""), out var clean) && clean.Length is > 0 and <= 200 ? clean : "file";
        var file = new StoredFile
        {
            Name = name,
            MediaType = FileKind.Of(request.Content),
            Group = FileKind.GroupOf(request.Content),
            Content = request.Content,
            Size = request.Content.Length,
            Hash = SHA256.HashData(request.Content),
            At = author.At,
            ByName = author.Name,
        };
        // Not under the actor's key: what is given twice is two files, of which nobody names one.
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, "", cancellation);
        db.Add(file);
        await act.CommitAsync(cancellation);
        return file;
    }
}

/// <param name="Name">What the file was called.</param>
/// <param name="Field">The field it is meant for; null where that is not said.</param>
public sealed record GiveFileRequest(string? Name, string? Field, byte[] Content);
