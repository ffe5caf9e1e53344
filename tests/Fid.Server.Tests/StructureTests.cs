using System.Reflection;
using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using ArchUnitNET.xUnitV3;
using Shouldly;
using Xunit;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace Fid.Server.Tests;

/// <summary>The arrows of the architecture point one way.</summary>
public class StructureTests
{
    private static readonly Architecture House = new ArchLoader().LoadAssemblies(
        typeof(Core.Calendars.WorkCalendar).Assembly, typeof(Data.FidDb).Assembly, typeof(Demo.DemoFirm).Assembly, typeof(Platform.FidServer).Assembly).Build();

    [Theory]
    [InlineData("Fid.Core", "Fid.Data")]
    [InlineData("Fid.Core", "Fid.Server")]
    [InlineData("Fid.Data", "Fid.Server")]
    [InlineData("Fid.Data", "Fid.Demo")]
    [InlineData("Fid.Demo", "Fid.Server")]
    [InlineData("Fid.Server", "Fid.Demo")]
    public void No_arrow_points_up(string lower, string upper) =>
        Types().That().ResideInAssemblyMatching($"^{lower},.*").Should().NotDependOnAny(Types().That().ResideInAssemblyMatching($"^{upper},.*")).Check(House);

    [Fact]
    public void The_folders_of_Core_depend_on_each_other_in_one_direction() => Rings("Fid.Core").ShouldBeEmpty();

    // Capabilities that reach each other, each with all it shares a ring with.
    private static IEnumerable<string> Rings(string floor)
    {
        var reached = House.Types.SelectMany(t => t.Dependencies.Select(d => (From: Capability(t, floor), To: Capability(d.Target, floor))))
            .Where(d => d is { From: not null, To: not null } && d.From != d.To).ToLookup(d => d.From!, d => d.To!);
        var all = reached.ToDictionary(r => r.Key, r => Behind(r.Key));
        return all.Keys.Where(k => all[k].Contains(k)).Order(StringComparer.Ordinal).Select(k => $"{k}: {string.Join(' ', all[k].Where(o => o != k && all.TryGetValue(o, out var behind) && behind.Contains(k)).Order(StringComparer.Ordinal))}");

        HashSet<string> Behind(string from)
        {
            var found = new HashSet<string>(StringComparer.Ordinal);
            var next = new Queue<string>(reached[from]);
            while (next.TryDequeue(out var one))
                if (found.Add(one)) foreach (var further in reached[one]) next.Enqueue(further);
            return found;
        }
    }

    // The folder right below the floor's own; null for what lies outside.
    private static string? Capability(IType type, string floor) =>
        type.Namespace?.FullName is { } name && name.StartsWith($"{floor}.", StringComparison.Ordinal) ? name[(floor.Length + 1)..].Split('.')[0] : null;

    [Fact]
    public void The_door_opens_to_all_rules_and_no_rule_knows_of_the_door() =>
        Types().That().ResideInNamespaceMatching(@"^Fid\.Core(?!\.Compute)(\..*)?$").Should().NotDependOnAny(Types().That().ResideInNamespaceMatching(@"^Fid\.Core\.Compute")).Check(House);

    [Fact]
    public void No_test_skips_its_assertion_where_there_is_nothing_to_assert_of() =>
        Directory.EnumerateFiles(Path.Combine(Repository.Root, "tests"), "*.cs", SearchOption.AllDirectories)
            .SelectMany(file => File.ReadLines(file).Where(line => Skips(line, ".Should")).Select(line => $"{Path.GetFileName(file)}: {line.Trim()}")).ShouldBeEmpty();

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
                if (line[i] is ')' or ']' or '}') depth++;
                else if (line[i] is '(' or '[' or '{' && depth-- == 0) break;
                else if (depth == 0 && line[i] == '?' && line[i + 1] is '.' or '[') return true;
            }
        return false;
    }

    [Theory]
    [InlineData("Fid.Server.People.Reader")]
    [InlineData("Fid.Server.People.SeenFacts")]
    public void What_several_threads_ask_at_once_keeps_nothing_that_asking_changes(string asked)
    {
        var fields = typeof(Platform.FidServer).Assembly.GetType(asked, throwOnError: true)!.GetFields(BindingFlags.Instance | BindingFlags.NonPublic | BindingFlags.Public);
        fields.ShouldNotBeEmpty();
        foreach (var field in fields)
        {
            field.IsInitOnly.ShouldBeTrue(field.Name);
            if (field.FieldType.IsGenericType) new[] { typeof(Dictionary<,>), typeof(HashSet<>), typeof(List<>) }.ShouldNotContain(field.FieldType.GetGenericTypeDefinition(), field.Name);
        }
    }
}
