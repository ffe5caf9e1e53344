using System.IO.MemoryMappedFiles;
using Fid.Faults.Tests.TimeLapse;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;

[assembly: HostingStartup(typeof(SimulatedTime))]

namespace Fid.Faults.Tests.TimeLapse;

/// <summary>A clock that several processes go by and a test sets. It goes on by itself, as clocks do: what is tried again after a second is.</summary>
internal sealed class SimulatedClock : IClock, IDisposable
{
    private readonly MemoryMappedFile _file;
    private readonly MemoryMappedViewAccessor _view;

    /// <param name="path">A file of eight bytes: by how much it is ahead of the machine's clock.</param>
    public SimulatedClock(string path)
    {
        Path = path;
        _file = MemoryMappedFile.CreateFromFile(path, FileMode.OpenOrCreate, null, sizeof(long));
        _view = _file.CreateViewAccessor();
    }

    public string Path { get; }

    public Instant GetCurrentInstant() => SystemClock.Instance.GetCurrentInstant() + Duration.FromTicks(_view.ReadInt64(0));

    public void Set(Instant now) => _view.Write(0, (long)(now - SystemClock.Instance.GetCurrentInstant()).TotalTicks);

    public void Dispose()
    {
        _view.Dispose();
        _file.Dispose();
    }
}

/// <summary>Gives a server that clock, whose process was told of it.</summary>
public sealed class SimulatedTime : IHostingStartup
{
    /// <summary>The name of the variable with the clock's file.</summary>
    public const string Variable = "FID_SIMULATED_CLOCK";

    public void Configure(IWebHostBuilder builder)
    {
        if (Environment.GetEnvironmentVariable(Variable) is { } path)
            builder.ConfigureServices(services => services.AddSingleton<IClock>(new SimulatedClock(path)));
    }
}
