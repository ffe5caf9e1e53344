using Fid.Acts;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fid.Testing;

/// <summary>Does acts without HTTP, as a job does: each in a scope of its own.</summary>
public sealed class ActCaller(FidInstance server) : IAsyncDisposable
{
    private readonly AsyncServiceScope _scope = server.Services.CreateAsyncScope();

    public FidDb Db => Get<FidDb>();

    public T Get<T>()
        where T : notnull => _scope.ServiceProvider.GetRequiredService<T>();

    /// <summary>Somebody of the demonstration, by given name.</summary>
    public async Task<Actor> AsAsync(string who)
    {
        var mail = $"{who}@halyard.example";
        return await Actor.OfAccountAsync(await Db.Users.Where(u => u.Email == mail).Select(u => u.Id).SingleAsync(), "test", Get<FirmClock>(), Db, default);
    }

    public Task<Actor> AsFidAsync(string why) => Actor.FidAsync(why, Get<FirmClock>(), Db, default);

    public ValueTask DisposeAsync() => _scope.DisposeAsync();
}
