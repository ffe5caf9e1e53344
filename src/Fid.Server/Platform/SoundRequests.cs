using System.Buffers;
using System.Text;
using System.Text.Json;
using Fid.Core;
using Fid.Core.Json;

namespace Fid.Server.Platform;

/// <summary>Refuses what no text of ours can be, before any endpoint sees it: the character NUL, which the database cannot keep, and
/// halves of characters (lone surrogates), which no encoding can.</summary>
internal static class SoundRequests
{
    private const int MostScanned = 1_000_000;

    public static void UseSoundRequests(this WebApplication app) =>
        app.Use(
            async (http, next) =>
            {
                var wrong = http.Request.Query.Where(q => Unsound(q.Key) || q.Value.Any(Unsound)).Select(q => q.Key).FirstOrDefault();
                if (wrong is not null || Unsound(http.Request.Path.Value))
                {
                    await Problems
                        .Invalid(
                            new Problem(
                                wrong is null || Unsound(wrong) ? "" : "/" + JsonPointer.Escape(wrong),
                                "bad-characters",
                                Core.Texts.TextRules.BadCharacters
                            )
                        )
                        .ExecuteAsync(http);
                    return;
                }
                if (http.Request.HasJsonContentType() && await WrongAsync(http) is { } problem)
                {
                    await Problems.Invalid(problem).ExecuteAsync(http);
                    return;
                }
                await next();
            }
        );

    private static bool Unsound(string? text) => text is not null && (text.Contains('\0', StringComparison.Ordinal) || HasHalves(text));

    private static bool HasHalves(string text)
    {
        for (var i = 0; i < text.Length; i++)
        {
            if (char.IsHighSurrogate(text[i]) && i + 1 < text.Length && char.IsLowSurrogate(text[i + 1]))
                i++;
            else if (char.IsSurrogate(text[i]))
                return true;
        }
        return false;
    }

    // Read once for this and kept for whoever binds it. What is too large, or no JSON, is for the endpoint to refuse.
    private static async Task<Problem?> WrongAsync(HttpContext http)
    {
        http.Request.EnableBuffering(MostScanned + 1);
        using var body = new MemoryStream();
        var buffer = ArrayPool<byte>.Shared.Rent(16_384);
        try
        {
            for (int read; (read = await http.Request.Body.ReadAsync(buffer, http.RequestAborted)) > 0; )
            {
                body.Write(buffer, 0, read);
                if (body.Length > MostScanned)
                    break;
            }
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(buffer);
            http.Request.Body.Position = 0;
        }
        var bytes = body.GetBuffer().AsMemory(0, (int)body.Length);
        // Only what is escaped can be unsound: a NUL or a half as such is no JSON.
        return body.Length <= MostScanned && bytes.Span.IndexOf("\\u"u8) >= 0 ? Find(bytes.Span) : null;
    }

    private static Problem? Find(ReadOnlySpan<byte> bytes)
    {
        var json = new Utf8JsonReader(bytes);
        var path = new Stack<(string? Name, int Index)>();
        try
        {
            while (json.Read())
            {
                // Each value of an array counts on.
                if (
                    path.TryPeek(out var at)
                    && at.Name is null
                    && json.TokenType is not (JsonTokenType.EndArray or JsonTokenType.EndObject or JsonTokenType.PropertyName)
                )
                {
                    path.Pop();
                    path.Push((null, at.Index + 1));
                }
                switch (json.TokenType)
                {
                    case JsonTokenType.StartArray:
                        path.Push((null, -1));
                        break;
                    case JsonTokenType.StartObject:
                        path.Push(("", 0));
                        break;
                    case JsonTokenType.EndArray or JsonTokenType.EndObject:
                        path.Pop();
                        break;
                    case JsonTokenType.PropertyName:
                        path.Pop();
                        if (Text(ref json) is null)
                            return Wrong(path);
                        path.Push((json.GetString(), 0));
                        break;
                    case JsonTokenType.String when Text(ref json) is null:
                        return Wrong(path);
                }
            }
        }
        catch (JsonException)
        {
            // No JSON: whoever binds it says so.
        }
        return null;
    }

    private static string? Text(ref Utf8JsonReader json)
    {
        if (!json.ValueIsEscaped)
            return "";
        try
        {
            return json.GetString() is { } text && !text.Contains('\0', StringComparison.Ordinal) ? text : null;
        }
        catch (InvalidOperationException)
        {
            return null;
        }
    }

    private static Problem Wrong(Stack<(string? Name, int Index)> path)
    {
        var parts = new StringBuilder();
        foreach (var (name, index) in path.Reverse())
            if (name is null)
                parts.Append('/').Append(Math.Max(index, 0));
            else if (name.Length > 0)
                parts.Append('/').Append(JsonPointer.Escape(name));
        return new Problem(parts.ToString(), "bad-characters", Core.Texts.TextRules.BadCharacters);
    }
}
