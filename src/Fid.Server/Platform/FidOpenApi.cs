using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using NodaTime;

namespace Fid.Server.Platform;

/// <summary>How our own types look in the OpenAPI document.</summary>
internal static class FidOpenApi
{
    public static void Configure(OpenApiOptions options)
    {
        options.AddSchemaTransformer((schema, context, _) =>
        {
            var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
            var format = type == typeof(LocalDate) ? "date" : type == typeof(Instant) ? "date-time" : null;
            if (format is not null)
            {
                var nullable = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) is not null;
                schema.Type = nullable ? JsonSchemaType.String | JsonSchemaType.Null : JsonSchemaType.String;
                schema.Format = format;
                schema.Properties?.Clear();
            }
            return Task.CompletedTask;
        });
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info = new OpenApiInfo { Title = "Fid", Version = "1", Description = "What the browser asks of Fid." };
            document.Servers = [];
            return Task.CompletedTask;
        });
    }
}
