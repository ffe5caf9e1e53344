using System.Diagnostics;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Fid.Browser.Tests;

/// <summary>A process of headless Chromium with a profile of its own, and the driver that speaks to it. Ended with all it started.</summary>
internal sealed class Chromium : IDisposable
{
    // A busy machine may leave a browser waiting for long: what a test waits for on a page has bounds of its own.
    private static readonly TimeSpan Answer = TimeSpan.FromMinutes(3);
    private const int Tries = 3;

    private readonly string _profile = Directory.CreateTempSubdirectory("fid-browser-").FullName;
    private readonly ChromeDriverService _service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");

    private Chromium(string language)
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-dev-shm-usage",
            "--disable-quic",
            "--no-first-run",
            "--password-store=basic",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            $"--user-data-dir={_profile}",
            $"--lang={language}"
        );
        options.AddUserProfilePreference("intl.accept_languages", language);
        options.SetLoggingPreference(LogType.Browser, LogLevel.All);
        try
        {
            Driver = new ChromeDriver(_service, options, Answer);
            // A browser that has started but shows nothing is found out here, not in the middle of a test.
            Driver.ExecuteScript("return document.readyState");
        }
        catch (WebDriverException)
        {
            Dispose();
            throw;
        }
    }

    public ChromeDriver Driver { get; } = null!;

    /// <summary>Starts one. One that does not come up says nothing about Fid, so it is tried again.</summary>
    /// <exception cref="WebDriverException">None of three came up.</exception>
    public static Chromium Start(string language)
    {
        for (var left = Tries; ; left--)
        {
            try
            {
                return new Chromium(language);
            }
            catch (WebDriverException) when (left > 1) { }
        }
    }

    public void Dispose()
    {
        // The driver's process is the parent of the browser's: one that no longer listens is ended with it.
        using var process = _service.IsRunning ? Process.GetProcessById(_service.ProcessId) : null;
        Driver?.Dispose();
        process?.Kill(entireProcessTree: true);
        process?.WaitForExit();
        _service.Dispose();
        try
        {
            Directory.Delete(_profile, recursive: true);
        }
        catch (IOException)
        {
            // One that was killed may have written to the last: a folder of the machine's temporary ones stays.
        }
    }
}
