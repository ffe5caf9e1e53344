using System.Diagnostics;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fid.Server.Platform;

/// <summary>Sets HTML as PDF with WeasyPrint, a program of Debian's: a few at a time, each cut off where it takes too long. What is set names nothing
/// outside itself, so nothing is fetched.</summary>
public sealed class PdfWriter(ILogger<PdfWriter> log) : IDisposable
{
    private const int MostAtOnce = 2;
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(60);

    private readonly SemaphoreSlim _free = new(MostAtOnce);

    /// <param name="html">A whole document.</param>
    /// <returns>Null where it cannot be done: the program is not there, or gave up.</returns>
    public async Task<byte[]?> WriteAsync(string html, CancellationToken cancellation)
    {
        await _free.WaitAsync(cancellation);
        try
        {
            using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
            patience.CancelAfter(Longest);
            return await SetAsync(html, patience.Token);
        }
        catch (Exception e) when (!cancellation.IsCancellationRequested)
        {
            log.LogWarning(e, "A PDF could not be made");
            return null;
        }
        finally
        {
            _free.Release();
        }
    }

    /// <summary>Says that it could not be done.</summary>
    public static ProblemHttpResult NotMade() => Problems.Unavailable("no-pdf", "The PDF could not be made. Whoever runs this server installs WeasyPrint.");

    private async Task<byte[]?> SetAsync(string html, CancellationToken cancellation)
    {
        using var program = new Process
        {
            StartInfo = new ProcessStartInfo("weasyprint", ["-q", "-e", "utf8", "-", "-"])
            {
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
                RedirectStandardError = true,
                StandardInputEncoding = new UTF8Encoding(false),
            },
        };
        program.Start();
        try
        {
            var (made, said) = (new MemoryStream(), program.StandardError.ReadToEndAsync(cancellation));
            var reading = program.StandardOutput.BaseStream.CopyToAsync(made, cancellation);
            await program.StandardInput.WriteAsync(html.AsMemory(), cancellation);
            program.StandardInput.Close();
            await reading;
            await program.WaitForExitAsync(cancellation);
            if (program.ExitCode == 0 && made.Length > 0)
                return made.ToArray();
            log.LogWarning("A PDF could not be made: {Said}", await said);
            return null;
        }
        finally
        {
            if (!program.HasExited)
                program.Kill(entireProcessTree: true);
        }
    }

    public void Dispose() => _free.Dispose();
}
