using Fid.Testing;

namespace Fid.Browser.Tests;

/// <summary>The demonstration firm with its pages.</summary>
public sealed class PageFixture : FirmFixture
{
    protected override string? WebRoot => Repository.WebBuild;
}
