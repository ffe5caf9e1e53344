extern alias standins;
using System.Net;
using System.Net.Sockets;
using Shouldly;
using standins::Fid.Standins.Mail;

namespace Fid.Testing;

/// <summary>The mail server that ships with Fid, at a port of its own.</summary>
public sealed class StandInMail : IAsyncDisposable
{
    private readonly CancellationTokenSource _stop = new();
    private readonly CaughtMail _mail = new(TimeProvider.System);
    private readonly SemaphoreSlim _news = new(0);
    private readonly Task _listening;
    private readonly int _port;

    public StandInMail()
    {
        _mail.Came += () => _news.Release();
        using (var free = new TcpListener(IPAddress.Loopback, 0))
        {
            free.Start();
            _port = ((IPEndPoint)free.LocalEndpoint).Port;
        }
        _listening = MailEndpoints.ListenAsync(_mail, _port, _stop.Token);
    }

    /// <summary>Settings by which a server sends its mail here.</summary>
    public Dictionary<string, string> Settings =>
        new()
        {
            ["Fid:Mail:Server"] = $"smtp://127.0.0.1:{_port}",
            ["Fid:Mail:From"] = "fid@halyard.example",
            ["Fid:Mail:Site"] = "http://fid.halyard.example",
        };

    /// <summary>Has it take mail again, or not: "Well", "Down", "Refusing".</summary>
    public void Feel(string mood) => _mail.Mood = Enum.Parse<MailMood>(mood);

    /// <summary>What has come when so many messages are there, by address; each with how often it came.</summary>
    public async Task<IReadOnlyList<(string To, string Subject, string Text, string Html, int Times)>> CaughtAsync(int count)
    {
        while (_mail.All().Count < count)
            (await _news.WaitAsync(TimeSpan.FromMinutes(1))).ShouldBeTrue($"{_mail.All().Count} of {count} messages came");
        return [.. _mail.All().Select(m => (m.To, m.Subject, m.Text, m.Html, m.Times)).OrderBy(m => m.To, StringComparer.Ordinal)];
    }

    /// <summary>The invitations that have come when so many messages are there, by address and in the order in which they came.</summary>
    public async Task<IReadOnlyList<(string To, string Calendar)>> InvitationsAsync(int count)
    {
        await CaughtAsync(count);
        var invitations = _mail.All().Where(m => m.Calendar is not null);
        return [.. invitations.OrderBy(m => m.To, StringComparer.Ordinal).ThenBy(m => m.At).Select(m => (m.To, m.Calendar!))];
    }

    public async ValueTask DisposeAsync()
    {
        await _stop.CancelAsync();
        await _listening;
        _stop.Dispose();
        _news.Dispose();
    }
}
