namespace Fid.Testing;

/// <summary>Where the checkout is that these tests were built from.</summary>
public static class Repository
{
    public static string Root { get; } = Find();

    public static string Web => Path.Combine(Root, "web");

    public static string WebBuild => Path.Combine(Root, "web", "build");

    private static string Find()
    {
        for (var folder = new DirectoryInfo(AppContext.BaseDirectory); folder is not null; folder = folder.Parent)
            if (File.Exists(Path.Combine(folder.FullName, "Fid.slnx")))
                return folder.FullName;
        throw new DirectoryNotFoundException("These tests run from a checkout.");
    }
}
