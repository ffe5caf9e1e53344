using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data;

/// <summary>Keeps a value as JSON in one column. It is changed by putting another value in its place.</summary>
internal static class JsonColumn
{
    public static PropertyBuilder<T> AsJson<T>(this PropertyBuilder<T> property, JsonSerializerOptions? options = null)
    {
        var json = options ?? JsonSerializerOptions.Web;
        return property
            .HasColumnType("jsonb")
            .HasConversion(
                value => JsonSerializer.Serialize(value, json),
                text => JsonSerializer.Deserialize<T>(text, json)!,
                new ValueComparer<T>((a, b) => ReferenceEquals(a, b), value => value == null ? 0 : value.GetHashCode())
            );
    }
}
