using System.Reflection;
using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using ArchUnitNET.xUnitV3;
using Fid.Acts;
using Fid.Testing;
using Shouldly;
using Xunit;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace Fid.Server.Tests;

/// <summary>The arrows of the architecture point one way.</summary>
public class StructureTests
{
    private static readonly Architecture House = new ArchLoader()
        .LoadAssemblies(
            typeof(Core.Calendars.WorkCalendar).Assembly,
            typeof(Data.FidDb).Assembly,
            typeof(Acts.Actor).Assembly,
            typeof(Demo.DemoFirm).Assembly,
            typeof(FidServer).Assembly
        )
        .Build();

    [Theory]
    [InlineData("Fid.Core", "Fid.Data")]
    [InlineData("Fid.Core", "Fid.Server")]
    [InlineData("Fid.Core", "Fid.Acts")]
    [InlineData("Fid.Data", "Fid.Acts")]
    [InlineData("Fid.Data", "Fid.Server")]
    [InlineData("Fid.Data", "Fid.Demo")]
    [InlineData("Fid.Acts", "Fid.Server")]
    [InlineData("Fid.Acts", "Fid.Demo")]
    [InlineData("Fid.Demo", "Fid.Server")]
    [InlineData("Fid.Server", "Fid.Demo")]
    public void No_arrow_points_up(string lower, string upper) =>
        Types().That().ResideInAssemblyMatching($"^{lower},.*").Should().NotDependOnAny(Types().That().ResideInAssemblyMatching($"^{upper},.*")).Check(House);

    [Theory]
    [InlineData("Fid.Core")]
    [InlineData("Fid.Data")]
    [InlineData("Fid.Acts")]
    [InlineData("Fid.Server")]
    public void The_folders_of_a_floor_depend_on_each_other_in_one_direction(string floor) => Rings(floor).ShouldBeEmpty();

    [Theory]
    [InlineData("docs/architecture.md")]
    [InlineData("CONTRIBUTING.md")]
    public void What_is_named_to_those_who_carry_on_is_there(string page)
    {
        var named = System
            .Text.RegularExpressions.Regex.Matches(File.ReadAllText(Path.Combine(Repository.Root, page)), "`((?:src|tests|web)/[^`<]+)`")
            .Select(m => m.Groups[1].Value)
            .Distinct()
            .ToList();
        named.Count.ShouldBeGreaterThan(8);
        named.Where(n => !Path.Exists(Path.Combine(Repository.Root, n))).ShouldBeEmpty();
    }

    [Fact]
    public void The_paths_from_a_request_to_the_rows_are_at_most_five_files_long()
    {
        var paths = File.ReadLines(Path.Combine(Repository.Root, "docs/architecture.md"))
            .Where(l => l.StartsWith("| ", StringComparison.Ordinal) && l.Contains('→', StringComparison.Ordinal))
            .ToList();
        paths.Count.ShouldBe(4);
        foreach (var path in paths)
            path.Split('→').Length.ShouldBeLessThanOrEqualTo(5, path);
    }

    // Who signs in, and what the trail of that says, is the platform's own: no act of anybody's.
    private const int LongestLine = 160;

    private static readonly string[] WritesOfThePlatform = ["SecurityTrail.cs", "Session.cs", "SessionStore.cs", "ViewAs.cs", "SignInPatience.cs"];

    [Fact]
    public void What_changes_the_firms_data_is_an_act() =>
        Sources("Fid.Server")
            .Where(file => !WritesOfThePlatform.Contains(Path.GetFileName(file)))
            .SelectMany(file => File.ReadLines(file).Where(Writes).Select(line => $"{Path.GetFileName(file)}: {line.Trim()}"))
            .ShouldBeEmpty();

    [Theory]
    [InlineData("await db.SaveChangesAsync(cancellation);", true)]
    [InlineData("await db.Hires.Where(h => h.Id == id).ExecuteDeleteAsync(cancellation);", true)]
    [InlineData("await db.Database.ExecuteSqlAsync($\"delete from hires\");", true)]
    [InlineData("await db.Hires.Where(h => h.Id == id).ToListAsync(cancellation);", false)]
    public void A_write_is_seen(string line, bool writes) => Writes(line).ShouldBe(writes);

    [Theory]
    [InlineData("en")]
    [InlineData("de")]
    public void Where_a_change_came_from_is_said_in_words(string language)
    {
        var said = File.ReadAllText(Path.Combine(Repository.Root, $"web/src/lib/text/{language}.ts")).Split("    from: (place")[1].Split("})[place]")[0];
        // The author of a spreadsheet's notes is no author of changes.
        var origins = new[] { "Fid.Acts", "Fid.Server" }
            .SelectMany(Sources)
            .SelectMany(file => System.Text.RegularExpressions.Regex.Matches(File.ReadAllText(file), "(?<!Authors\\(new )Author\\([^()\"]*\"(\\w+)\"\\)"))
            .Select(m => m.Groups[1].Value)
            .Distinct()
            .ToList();
        origins.Count.ShouldBeGreaterThan(10);
        origins.Where(o => !said.Contains($" {o}: '", StringComparison.Ordinal)).ShouldBeEmpty();
    }

    [Fact]
    public void An_act_is_asked_for_one_thing_by_somebody_who_acts_and_says_what_came_of_it()
    {
        ActServices.Acts.Count().ShouldBeGreaterThan(40);
        foreach (var act in ActServices.Acts)
        {
            var does = act.GetMethods().Where(m => m.Name == "DoAsync").ToList();
            does.Count.ShouldBe(1, act.Name);
            var parameters = does[0].GetParameters();
            parameters.Select(p => p.ParameterType).Skip(1).ShouldBe([typeof(Actor), typeof(CancellationToken)], act.Name);
        }
    }

    [Fact]
    public void Locks_are_taken_in_one_place() =>
        Sources("Fid.Acts")
            .Concat(Sources("Fid.Server"))
            .Where(file => Path.GetFileName(file) is not ("Locks.cs" or "JobQueue.cs"))
            .SelectMany(file =>
                File.ReadLines(file)
                    .Where(line =>
                        line.Contains("pg_advisory", StringComparison.Ordinal)
                        || line.Contains("for update", StringComparison.Ordinal)
                            && !line.Contains("skip locked", StringComparison.Ordinal)
                            && !line.TrimStart().StartsWith("//", StringComparison.Ordinal)
                    )
                    .Select(line => $"{Path.GetFileName(file)}: {line.Trim()}")
            )
            .ShouldBeEmpty();

    private static bool Writes(string line) =>
        new[] { "SaveChanges", "ExecuteUpdate", "ExecuteDelete", "ExecuteSql", "BeginTransaction" }.Any(w => line.Contains(w, StringComparison.Ordinal));

    private static IEnumerable<string> Sources(string floor) =>
        Directory
            .EnumerateFiles(Path.Combine(Repository.Root, "src", floor), "*.cs", SearchOption.AllDirectories)
            .Where(f => !f.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}", StringComparison.Ordinal));

    // Capabilities that reach each other, each with all it shares a ring with.
    private static IEnumerable<string> Rings(string floor)
    {
        var reached = House
            .Types.SelectMany(t => t.Dependencies.Select(d => (From: Capability(t, floor), To: Capability(d.Target, floor))))
            .Where(d => d is { From: not null, To: not null } && d.From != d.To)
            .ToLookup(d => d.From!, d => d.To!);
        var all = reached.ToDictionary(r => r.Key, r => Behind(r.Key));
        return all
            .Keys.Where(k => all[k].Contains(k))
            .Order(StringComparer.Ordinal)
            .Select(k =>
                $"{k}: {string.Join(' ', all[k].Where(o => o != k && all.TryGetValue(o, out var behind) && behind.Contains(k)).Order(StringComparer.Ordinal))}"
            );

        HashSet<string> Behind(string from)
        {
            var found = new HashSet<string>(StringComparer.Ordinal);
            var next = new Queue<string>(reached[from]);
            while (next.TryDequeue(out var one))
                if (found.Add(one))
                    foreach (var further in reached[one])
                        next.Enqueue(further);
            return found;
        }
    }

    // The folder right below the floor's own; null for what lies outside.
    private static string? Capability(IType type, string floor) =>
        type.Namespace?.FullName is { } name && name.StartsWith($"{floor}.", StringComparison.Ordinal) ? name[(floor.Length + 1)..].Split('.')[0] : null;

    // Where a role is given that everybody of a kind has, and where those that ship are told from the firm's own.
    private static readonly string[] NameRoles =
    [
        "src/Fid.Core/Rights/",
        "src/Fid.Acts/Actor.cs",
        "src/Fid.Acts/Accounts/NewcomerAccounts.cs",
        "src/Fid.Acts/Accounts/EndAccountsOfLeavers.cs",
        "src/Fid.Acts/Setup/SetUpFirm.cs",
        "src/Fid.Server/Admin/RolesEndpoints.cs",
        "src/Fid.Demo/",
    ];

    [Fact]
    public void Nothing_asks_for_a_role_by_its_name()
    {
        var asks = new System.Text.RegularExpressions.Regex(@"ShippedRoles\.|IsInRole|RequireRole|ClaimTypes\.Role|AddToRole|\.AccessOf\(");
        Directory
            .EnumerateFiles(Path.Combine(Repository.Root, "src"), "*.cs", SearchOption.AllDirectories)
            .Select(f => (Path: Path.GetRelativePath(Repository.Root, f), Text: File.ReadAllText(f)))
            .Where(f => !f.Path.Contains("/obj/") && !f.Path.Contains("/bin/") && !f.Path.StartsWith("src/Fid.Core/Fields/", StringComparison.Ordinal))
            .Where(f => !NameRoles.Any(n => f.Path.StartsWith(n, StringComparison.Ordinal)) && asks.IsMatch(f.Text))
            .Select(f => $"{f.Path}: {asks.Match(f.Text).Value}")
            .ShouldBeEmpty();
    }

    [Fact]
    public void No_line_is_too_long_to_be_read() =>
        new[] { "src", "tests" }
            .SelectMany(floor => Directory.EnumerateFiles(Path.Combine(Repository.Root, floor), "*.cs", SearchOption.AllDirectories))
            .Where(file =>
                !file.Contains("Migrations", StringComparison.Ordinal)
                && !file.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}", StringComparison.Ordinal)
            )
            .SelectMany(file => File.ReadLines(file).Where(line => line.Length > LongestLine).Select(line => $"{Path.GetFileName(file)}: {line.Trim()}"))
            .ShouldBeEmpty();

    [Fact]
    public void The_door_opens_to_all_rules_and_no_rule_knows_of_the_door() =>
        Types()
            .That()
            .ResideInNamespaceMatching(@"^Fid\.Core(?!\.Compute)(\..*)?$")
            .Should()
            .NotDependOnAny(Types().That().ResideInNamespaceMatching(@"^Fid\.Core\.Compute"))
            .Check(House);

    [Fact]
    public void No_test_skips_its_assertion_where_there_is_nothing_to_assert_of() =>
        Directory
            .EnumerateFiles(Path.Combine(Repository.Root, "tests"), "*.cs", SearchOption.AllDirectories)
            .SelectMany(file => File.ReadLines(file).Where(line => Skips(line, ".Should")).Select(line => $"{Path.GetFileName(file)}: {line.Trim()}"))
            .ShouldBeEmpty();

    [Theory]
    [InlineData("found?.Name.Is(name);", true)]
    [InlineData("node?[\"x\"].Is(name);", true)]
    [InlineData("(found?.Name).Is(name);", false)]
    [InlineData("found.Select(f => f?.Name).Is(names);", false)]
    [InlineData("first?.Do(); second.Is(1);", false)]
    public void An_assertion_behind_a_question_mark_is_seen(string line, bool skips) => Skips(line, ".Is").ShouldBe(skips);

    // What follows "?." is not asked where there is nothing before it; parentheses around it have it asked.
    private static bool Skips(string line, string assertion)
    {
        for (var at = line.IndexOf(assertion, StringComparison.Ordinal); at >= 0; at = line.IndexOf(assertion, at + 1, StringComparison.Ordinal))
        for (int i = at - 1, depth = 0; i >= 0 && line[i] != ';'; i--)
        {
            if (line[i] is ')' or ']' or '}')
                depth++;
            else if (line[i] is '(' or '[' or '{' && depth-- == 0)
                break;
            else if (depth == 0 && line[i] == '?' && line[i + 1] is '.' or '[')
                return true;
        }
        return false;
    }

    [Theory]
    [InlineData("Fid.Acts", "People.Reader")]
    [InlineData("Fid.Server", "People.VisibleFacts")]
    public void What_several_threads_ask_at_once_keeps_nothing_that_asking_changes(string floor, string asked)
    {
        var fields = System
            .Reflection.Assembly.Load(floor)
            .GetType($"{floor}.{asked}", throwOnError: true)!
            .GetFields(BindingFlags.Instance | BindingFlags.NonPublic | BindingFlags.Public);
        fields.ShouldNotBeEmpty();
        foreach (var field in fields)
        {
            field.IsInitOnly.ShouldBeTrue(field.Name);
            if (field.FieldType.IsGenericType)
                new[] { typeof(Dictionary<,>), typeof(HashSet<>), typeof(List<>) }.ShouldNotContain(field.FieldType.GetGenericTypeDefinition(), field.Name);
        }
    }
}
