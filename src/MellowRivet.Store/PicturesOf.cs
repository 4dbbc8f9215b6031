using System.Reflection;
using System.Text.Json.Serialization;
using System.Collections.Frozen;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Store.Files;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>
/// Which aircraft a picture, sound or video belongs to. Every column that can hold one is found in the model itself: one that is added is
/// looked through from then on.
/// </summary>
public static class PicturesOf
{
    private static readonly string[] Links = ["InspectionId", "AircraftId", "ComponentId"];

    private static FrozenSet<(string Table, string Column, string Link)>? places;

    /// <summary>The columns that hold pictures, sounds and videos, each with what leads from its row to an aircraft.</summary>
    public static IReadOnlyCollection<(string Table, string Column, string Link)> Places(RivetDb db) => places ??=
    [
        .. from entity in db.Model.GetEntityTypes()
           from column in entity.GetProperties()
           where Holds(column.ClrType, [])
           from link in entity.ClrType == typeof(Inspection) ? ["AircraftId"]
               : Links.Where(link => entity.FindProperty(link) is not null)
           select (entity.GetTableName()!, column.GetColumnName(), link),
    ];

    /// <summary>Whether a picture, sound or video stands anywhere on some aircraft, for whoever owns it.</summary>
    public static async Task<bool> IsOnAsync(this RivetDb db, string sha256, IReadOnlyCollection<Guid> aircraft, CancellationToken stop)
    {
        if (!PhotoFiles.IsSha256(sha256) || aircraft.Count == 0)
            return false;
        var these = string.Join(", ", aircraft.Select((_, index) => $"@a{index}"));
        var sql = string.Join(" UNION ALL ", Places(db).Select(place =>
            $"""
            SELECT 1 FROM "{place.Table}" WHERE "{place.Link}" IN ({Leading(place.Link, these)}) AND instr("{place.Column}", @sha) > 0
                {NotSurveyed(db, place.Table)}
            """));
        SqliteParameter[] given = [new("@sha", sha256), .. aircraft.Select((id, index) => new SqliteParameter($"@a{index}", id))];
#pragma warning disable EF1002 // Names of tables and columns come from the model; what comes from outside is a parameter.
        return await db.Database.SqlQueryRaw<int>($"SELECT EXISTS ({sql}) AS Value", [.. given]).SingleAsync(stop) == 1;
#pragma warning restore EF1002
    }

    // What a buyer has surveyed is no picture of the owner's, whatever leads from it to the aircraft, until it is open on an aircraft of
    // theirs.
    private static string NotSurveyed(RivetDb db, string table)
    {
        string NameOf<T>() => db.Model.FindEntityType(typeof(T))!.GetTableName()!;
        var inspections = NameOf<Inspection>();
        return table == inspections ? $"AND Kind <> '{InspectionKind.Survey}'"
            : table == NameOf<OpenItem>() || !Places(db).Any(place => place.Table == table && place.Link == "InspectionId") ? ""
            : $"AND (InspectionId IS NULL OR InspectionId NOT IN (SELECT Id FROM {inspections} WHERE Kind = '{InspectionKind.Survey}'))";
    }

    private static string Leading(string link, string these) => link switch
    {
        "InspectionId" => $"SELECT Id FROM Inspections WHERE AircraftId IN ({these})",
        "ComponentId" => $"SELECT ComponentId FROM Installations WHERE AircraftId IN ({these})",
        _ => these,
    };

    private static bool Holds(Type type, HashSet<Type> seen) => seen.Add(type)
        && (type == typeof(Photo) || type == typeof(Sound) || type == typeof(Video)
        || (type.IsGenericType && type.GetGenericArguments().Any(argument => Holds(argument, seen)))
        || (type.Namespace?.StartsWith("MellowRivet", StringComparison.Ordinal) == true && !type.IsEnum
            && type.GetProperties().Any(property => property.GetCustomAttribute<JsonIgnoreAttribute>() is null
                && Holds(property.PropertyType, seen))));
}
