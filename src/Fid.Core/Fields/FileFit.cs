using System.Globalization;

namespace Fid.Core.Fields;

/// <summary>Holds a file against the field it is meant for.</summary>
public static class FileFit
{
    /// <summary>The most bytes any file may have.</summary>
    public const int Largest = 10_000_000;

    private const decimal Megabyte = 1_000_000m;

    /// <summary>The most bytes a field takes: its most in megabytes of a million bytes, and never more than <see cref="Largest"/>.</summary>
    public static int MostBytes(FieldDefinition field) =>
        field.Max?.Number is { } most && most < Largest / Megabyte ? (int)decimal.Max(0, most * Megabyte) : Largest;

    /// <summary>What is wrong with a file for a field; null where it fits.</summary>
    public static Problem? Check(FieldDefinition field, int size, FileGroup? group)
    {
        if (size > MostBytes(field))
            return new Problem($"/{field.Key}", "too-large", $"The file has {Sized(size)}. Choose one of at most {Sized(MostBytes(field))}.");
        if (field.Accepts is { } groups && (group is null || !groups.Contains(group.Value)))
            return new Problem(
                $"/{field.Key}",
                "wrong-kind",
                $"The file is none of those that belong here, whatever it is called. Choose {string.Join(" or ", groups.Select(Named))}."
            );
        return null;
    }

    private static string Named(FileGroup group) =>
        group switch
        {
            FileGroup.Picture => "a picture (PNG, JPEG, GIF, WebP)",
            FileGroup.Pdf => "a PDF",
            _ => "a document (Word, Excel, OpenDocument)",
        };

    private static string Sized(int bytes) =>
        bytes < 1000 ? string.Create(CultureInfo.InvariantCulture, $"{bytes} bytes")
        : bytes < Megabyte / 10 ? string.Create(CultureInfo.InvariantCulture, $"{Math.Ceiling(bytes / 1000m):0} kB")
        : string.Create(CultureInfo.InvariantCulture, $"{Math.Ceiling(bytes / Megabyte * 10) / 10:0.#} MB");
}
