using System.Buffers.Binary;
using System.Net.Sockets;
using System.Text;
using Fid.Core;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fid.Server.People;

/// <summary>
/// Has files looked at by a scanner for harmful content before they are kept, where the firm runs one: any that answers INSTREAM of
/// clamd's protocol at the address that Fid:Scanner names. Without one, files are kept as they come.
/// </summary>
internal sealed class FileScanner(IConfiguration configuration, ILogger<FileScanner> log)
{
    private const int Piece = 64 * 1024;
    private const int LongestReply = 1024;
    private readonly TimeSpan _patience = configuration.GetValue("Fid:ScannerAnswer", TimeSpan.FromSeconds(30));
    private readonly (string Host, int Port)? _address = Address(configuration["Fid:Scanner"]);

    /// <summary>Why a file cannot be kept; null where nothing speaks against it. What could not be looked at is not kept.</summary>
    public async Task<ProblemHttpResult?> FindAsync(byte[] content, CancellationToken cancellation)
    {
        if (_address is not var (host, port))
            return null;
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
        limited.CancelAfter(_patience);
        try
        {
            var reply = await AskAsync(host, port, content, limited.Token);
            if (reply == "stream: OK")
                return null;
            if (reply.EndsWith(" FOUND", StringComparison.Ordinal))
            {
                log.LogWarning("The scanner refused a file of {Size} bytes: {Reply}", content.Length, reply);
                return Problems.Invalid(new Problem("", "harmful", "The scanner found something harmful in this file. It was not kept. Choose another."));
            }
            log.LogError("The scanner answered {Reply}", reply);
        }
        catch (Exception e) when (e is SocketException or IOException || (e is OperationCanceledException && !cancellation.IsCancellationRequested))
        {
            log.LogError(e, "The scanner at {Host}:{Port} could not be asked", host, port);
        }
        return Problems.Make(
            StatusCodes.Status503ServiceUnavailable,
            "not-scanned",
            "The file could not be looked at by the scanner, so it was not kept. Try again in a few minutes."
        );
    }

    // zINSTREAM, then pieces that each begin with their length in four bytes, highest first; a piece of none ends it.
    private static async Task<string> AskAsync(string host, int port, byte[] content, CancellationToken cancellation)
    {
        using var client = new TcpClient();
        await client.ConnectAsync(host, port, cancellation);
        await using var stream = client.GetStream();
        await stream.WriteAsync("zINSTREAM\0"u8.ToArray(), cancellation);
        var length = new byte[4];
        for (var at = 0; at < content.Length; at += Piece)
        {
            var piece = content.AsMemory(at, Math.Min(Piece, content.Length - at));
            BinaryPrimitives.WriteInt32BigEndian(length, piece.Length);
            await stream.WriteAsync(length, cancellation);
            await stream.WriteAsync(piece, cancellation);
        }
        await stream.WriteAsync(new byte[4], cancellation);
        var reply = new byte[LongestReply];
        var read = 0;
        while (read < reply.Length && await stream.ReadAsync(reply.AsMemory(read), cancellation) is var more and > 0)
        {
            read += more;
            if (reply.AsSpan(0, read).Contains((byte)0))
                break;
        }
        return Encoding.ASCII.GetString(reply, 0, read).TrimEnd('\0', '\n', ' ');
    }

    private static (string, int)? Address(string? setting)
    {
        if (string.IsNullOrEmpty(setting))
            return null;
        return setting.LastIndexOf(':') is var colon and > 0 && int.TryParse(setting.AsSpan(colon + 1), out var port) && port is > 0 and < 65536
            ? (setting[..colon], port)
            : throw new InvalidOperationException($"Fid:Scanner takes an address such as 127.0.0.1:3310, not {setting}.");
    }
}
