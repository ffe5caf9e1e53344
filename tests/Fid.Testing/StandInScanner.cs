using System.Buffers.Binary;
using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Fid.Testing;

/// <summary>A scanner that answers INSTREAM of clamd's protocol with whatever it is told to say.</summary>
public sealed class StandInScanner : IAsyncDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly Task _serving;

    public StandInScanner()
    {
        _listener.Start();
        _serving = ServeAsync();
    }

    public string Address => _listener.LocalEndpoint.ToString()!;

    public string Says { get; set; } = "stream: OK";

    /// <summary>What it was last sent.</summary>
    public byte[] Seen { get; private set; } = [];

    public async ValueTask DisposeAsync()
    {
        _listener.Stop();
        await _serving;
    }

    private async Task ServeAsync()
    {
        try
        {
            while (true)
            {
                using var client = await _listener.AcceptTcpClientAsync();
                await using var stream = client.GetStream();
                var command = new byte[10];
                await stream.ReadExactlyAsync(command);
                if (Encoding.ASCII.GetString(command) != "zINSTREAM\0")
                    continue;
                using var seen = new MemoryStream();
                var length = new byte[4];
                while (true)
                {
                    await stream.ReadExactlyAsync(length);
                    var piece = new byte[BinaryPrimitives.ReadInt32BigEndian(length)];
                    if (piece.Length == 0)
                        break;
                    await stream.ReadExactlyAsync(piece);
                    seen.Write(piece);
                }
                Seen = seen.ToArray();
                await stream.WriteAsync(Encoding.ASCII.GetBytes($"{Says}\0"));
            }
        }
        catch (Exception e) when (e is SocketException or ObjectDisposedException or OperationCanceledException or InvalidOperationException)
        {
            // It was stopped.
        }
    }
}
