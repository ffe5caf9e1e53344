using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Fid.Testing;

/// <summary>A browser, as far as the interface is concerned: keeps its cookies, and sends the antiforgery token back.</summary>
public sealed class Caller : IDisposable
{
    public const string Password = "halyard-sound-ferries";

    private readonly CookieContainer _cookies;
    private readonly HttpClient _http;

    public Caller(Uri address, CookieContainer? cookies = null)
    {
        (Address, _cookies) = (address, cookies ?? new CookieContainer());
        _http = new HttpClient(new SocketsHttpHandler { CookieContainer = _cookies }) { BaseAddress = address };
    }

    public Uri Address { get; }

    /// <summary>What a proxy in front of the server would say of the caller: the address, and http or https.</summary>
    public (string For, string Proto)? Forwarded { get; set; }

    /// <summary>By which what the server does for this caller can be told from all else; null for nothing.</summary>
    public string? Trace { get; set; }

    /// <summary>The language of the user who reads.</summary>
    public string Language
    {
        set
        {
            _http.DefaultRequestHeaders.AcceptLanguage.Clear();
            _http.DefaultRequestHeaders.AcceptLanguage.ParseAdd(value);
        }
    }

    /// <summary>Another browser with the cookies that this one has now.</summary>
    public Caller CopyOfCookies()
    {
        var copy = new CookieContainer();
        copy.Add(_cookies.GetCookies(Address));
        return new Caller(Address, copy);
    }

    /// <summary>Signed in as somebody of the demonstration, by given name.</summary>
    public static async Task<Caller> SignedInAsync(Uri address, string who)
    {
        var caller = new Caller(address);
        await caller.GetAsync("/api/session");
        (await caller.SendAsync("POST", "/api/session", new { email = $"{who}@halyard.example", password = Password })).EnsureSuccessStatusCode();
        return caller;
    }

    /// <summary>The same browser at another instance.</summary>
    public Caller MovedTo(Uri address) => new(address, _cookies);

    public async Task<JsonNode> GetAsync(string path)
    {
        using var response = await _http.GetAsync(new Uri(path, UriKind.Relative));
        response.EnsureSuccessStatusCode();
        return (await response.Content.ReadFromJsonAsync<JsonNode>())!;
    }

    /// <summary>Sends an object as JSON, or a text or content as it is.</summary>
    public async Task<HttpResponseMessage> SendAsync(
        string method,
        string path,
        object? body = null,
        string? ifMatch = null,
        bool withToken = true,
        Guid? key = null
    )
    {
        using var request = new HttpRequestMessage(new HttpMethod(method), new Uri(path, UriKind.Relative));
        if (withToken && _cookies.GetAllCookies().FirstOrDefault(c => c.Name == "fid-xsrf") is { } token)
            request.Headers.Add("X-Fid-Xsrf", Uri.UnescapeDataString(token.Value));
        if (Forwarded is var (forwardedFor, proto))
        {
            request.Headers.Add("X-Forwarded-For", forwardedFor);
            request.Headers.Add("X-Forwarded-Proto", proto);
            // Secure cookies come back to nobody over http: the test sends them as the proxy would.
            if (_cookies.Count > 0)
                request.Headers.Add("Cookie", string.Join("; ", _cookies.GetAllCookies().Select(c => $"{c.Name}={c.Value}")));
        }
        if (Trace is not null)
            request.Headers.Add("traceparent", $"00-{Trace}-00f067aa0ba902b7-01");
        if (key is not null)
            request.Headers.TryAddWithoutValidation("Idempotency-Key", key.ToString());
        if (ifMatch is not null)
            request.Headers.TryAddWithoutValidation("If-Match", ifMatch);
        if (body is not null)
            request.Content = body as HttpContent ?? new StringContent(body as string ?? JsonSerializer.Serialize(body), Encoding.UTF8, "application/json");
        return await _http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
    }

    /// <summary>Sends bytes as they are.</summary>
    public async Task<HttpResponseMessage> SendFileAsync(string path, byte[] file)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, new Uri(path, UriKind.Relative)) { Content = new ByteArrayContent(file) };
        request.Content.Headers.ContentType = new("application/octet-stream");
        if (_cookies.GetCookies(Address)["fid-xsrf"] is { } token)
            request.Headers.Add("X-Fid-Xsrf", Uri.UnescapeDataString(token.Value));
        return await _http.SendAsync(request);
    }

    public Task<byte[]> BytesAsync(string path) => _http.GetByteArrayAsync(new Uri(path, UriKind.Relative));

    public void Dispose() => _http.Dispose();
}

public static class Answers
{
    public static async Task<JsonNode> JsonAsync(this HttpResponseMessage response) => (await response.Content.ReadFromJsonAsync<JsonNode>())!;

    /// <summary>The pointers and codes of a problem's entries.</summary>
    public static async Task<(string Pointer, string Code)[]> ErrorsAsync(this HttpResponseMessage response) =>
        [.. ((await response.JsonAsync())["errors"]?.AsArray() ?? []).Select(e => ((string)e!["pointer"]!, (string)e["code"]!))];

    public static string Text(this JsonNode node, string name) => (string)node[name]!;

    /// <summary>A number, read to the cent.</summary>
    public static decimal Amount(this JsonNode node, string name) => node[name]!.GetValue<decimal>();
}
