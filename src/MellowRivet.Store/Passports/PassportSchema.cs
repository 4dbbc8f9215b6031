using System.Text.Encodings.Web;
using System.Text.Json.Nodes;
using MellowRivet.Core.Passports;
using MellowRivet.Store.Mapping;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;

namespace MellowRivet.Store.Passports;

/// <summary>
/// The JSON Schema of a passport: the manifest, and under <c>$defs</c> a row of each file of rows, from the shop's own model. A column is
/// added by a later release without another version; one that is taken away or means something else makes one.
/// </summary>
public static class PassportSchema
{
    public static string Of(RivetDb db)
    {
        var whole = JsonNode.Parse(PassportManifest.Schema())!.AsObject();
        whole["$defs"] = new JsonObject(PassportTables.All.Select(table =>
            KeyValuePair.Create(table.File, (JsonNode?)RowOf(db.Model, table))));
        return whole.ToJsonString(new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping }) + "\n";
    }

    private static JsonObject RowOf(IModel model, PassportTable table)
    {
        var entity = model.GetEntityTypes().Single(entity => entity.GetTableName() == table.Table);
        var columns = entity.GetProperties().Select(property => (Name: property.GetColumnName(), Property: property))
            .Where(column => !table.Left.Contains(column.Name)).OrderBy(column => column.Name, StringComparer.Ordinal).ToList();
        return new()
        {
            ["description"] = $"{table.Path}, a line each: {table.What}",
            ["type"] = "object",
            ["properties"] = new JsonObject(columns.Select(column =>
                KeyValuePair.Create(column.Name, (JsonNode?)Of(table, column.Property)))),
        };
    }

    private static JsonObject Of(PassportTable table, IProperty column)
    {
        var converter = column.GetTypeMapping().Converter;
        if (converter?.GetType() is { IsGenericType: true } kept && kept.GetGenericTypeDefinition() == typeof(JsonText<>))
            return new()
            {
                // What a release from before versions wrote stands there as text.
                ["type"] = column.IsNullable ? new JsonArray("object", "string", "null") : new JsonArray("object", "string"),
                ["properties"] = new JsonObject
                    { ["v"] = new JsonObject { ["type"] = "integer" }, ["is"] = Moved(StoredShapes.SchemaOf(kept.GetGenericArguments()[0]),
                        $"#/$defs/{table.File}/properties/{column.GetColumnName()}/properties/is") },
            };
        var given = converter?.ProviderClrType ?? column.ClrType;
        var stored = Nullable.GetUnderlyingType(given) ?? given;
        var type = stored == typeof(double) ? "number" : stored == typeof(int) || stored == typeof(long) || stored == typeof(bool)
            ? "integer"
            : "string";
        return new() { ["type"] = column.IsNullable ? new JsonArray(type, "null") : type };
    }

    // A shape refers to places within itself from its own top, which isn't the document's.
    private static JsonNode Moved(JsonNode shape, string to)
    {
        if (shape is JsonObject members)
        {
            if (members["$ref"] is JsonValue pointer)
                members["$ref"] = to + $"{pointer}"[1..];
            foreach (var member in members.Select(member => member.Value).OfType<JsonNode>())
                Moved(member, to);
        }
        else if (shape is JsonArray items)
            foreach (var item in items.OfType<JsonNode>())
                Moved(item, to);
        return shape;
    }
}
