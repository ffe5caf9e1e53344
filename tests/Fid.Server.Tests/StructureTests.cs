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
    public void The_folders_of_Core_depend_on_each_other_in_one_direction()
    {
        // The door opens to all rules; no rule knows of the door.
        Types().That().ResideInNamespaceMatching(@"^Fid\.Core(\.(Calendars|Planning|Pay|Clock|Templates|Fields|Formulas|Lists|History|Json)(\..*)?)?$")
            .Should().NotDependOnAny(Types().That().ResideInNamespaceMatching(@"^Fid\.Core\.Compute")).Check(House);
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
