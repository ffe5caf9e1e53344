using System.Text.Json;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using NodaTime;

namespace Fid.Server.Platform;

/// <summary>How our own types look in the OpenAPI document.</summary>
internal static class FidOpenApi
{
    private const JsonSchemaType AnyValue = JsonSchemaType.String | JsonSchemaType.Number | JsonSchemaType.Boolean | JsonSchemaType.Null;

    private static List<IOpenApiSchema> FieldValue() =>
        [
            new OpenApiSchema { Type = AnyValue },
            new OpenApiSchema
            {
                Type = JsonSchemaType.Array,
                Items = new OpenApiSchema { Type = JsonSchemaType.String },
            },
        ];

    public static void Configure(OpenApiOptions options)
    {
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
                var format =
                    type == typeof(LocalDate) ? "date"
                    : type == typeof(Instant) ? "date-time"
                    : null;
                if (format is not null)
                {
                    var nullable = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) is not null;
                    schema.Type = nullable ? JsonSchemaType.String | JsonSchemaType.Null : JsonSchemaType.String;
                    schema.Format = format;
                    schema.Properties?.Clear();
                }
                // Values of record fields are texts, numbers, yes or no, lists of texts, or nothing: never objects.
                if (type == typeof(JsonElement))
                    schema.AnyOf = FieldValue();
                if (type == typeof(Dictionary<string, JsonElement>))
                    schema.AdditionalProperties = new OpenApiSchema { AnyOf = FieldValue() };
                if (type == typeof(System.Text.Json.Nodes.JsonObject))
                {
                    schema.Type = JsonSchemaType.Object;
                    schema.AdditionalProperties = new OpenApiSchema();
                }
                return Task.CompletedTask;
            }
        );
        options.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info = new OpenApiInfo
                {
                    Title = "Fid",
                    Version = "1",
                    Description = "What the browser asks of Fid.",
                };
                document.Servers = [];
                return Task.CompletedTask;
            }
        );
    }
}
