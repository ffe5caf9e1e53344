using System.Reflection;
using Fid.Core.Calendars;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests;

/// <summary>Core holds rules and nothing else: what it may not do, it cannot reach.</summary>
public class ArchitectureTests
{
    private static readonly Assembly Core = typeof(WorkCalendar).Assembly;

    // What the base library splits into: none of these opens a file, a socket or a database.
    private static readonly string[] Allowed =
    [
        "System.Runtime",
        "System.Collections",
        "System.Linq",
        "System.Memory",
        "System.Text.Json",
        "System.Text.Encodings.Web",
        "System.Text.RegularExpressions",
        "System.Runtime.Numerics",
        "System.Security.Cryptography",
        "System.Runtime.InteropServices",
        "System.Text.Encoding.Extensions",
        "System.Private.Uri",
        "NodaTime",
        "NCalc.Sync",
        "NCalc.Core",
        "NCalc.Domain",
        "NCalc.Parser",
        "F23.StringSimilarity",
        "netstandard",
    ];

    [Fact]
    public void Core_references_the_base_library_and_libraries_for_dates_expressions_and_likeness_of_texts_only() =>
        Core.GetReferencedAssemblies().Select(a => a.Name!).Except(Allowed).ShouldBeEmpty();

    [Fact]
    public void Core_asks_no_clock_and_touches_no_file()
    {
        string[] forbidden =
        [
            "System.DateTime::get_Now",
            "System.DateTime::get_UtcNow",
            "System.DateTime::get_Today",
            "System.DateTimeOffset::get_Now",
            "System.DateTimeOffset::get_UtcNow",
            "NodaTime.SystemClock::get_Instance",
            "System.IO.File::",
            "System.IO.Directory::",
            "System.IO.FileStream::",
            "System.Console::",
            "System.Environment::GetEnvironmentVariable",
            "System.Environment::get_TickCount64",
            "System.Diagnostics.Stopwatch::",
        ];
        var calls = CalledMembers.Of(Core);
        calls.ShouldContain("NodaTime.LocalDate::FromDateOnly"); // the reader does see calls
        calls.Where(c => forbidden.Any(f => c.StartsWith(f, StringComparison.Ordinal))).ShouldBeEmpty();
    }
}
