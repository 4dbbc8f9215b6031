using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <summary>Moves the stays of parts and the readings of meters to their own tables; the schema itself is AircraftFile's.</summary>
    public partial class AircraftFileData : Migration
    {
        private const string NewId = "upper(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-A' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6)))";

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                INSERT INTO Installations (Id, AircraftId, ComponentId, ParentId, Position, InstalledAt, OwnTimeThen, RemovedAt, RemovedWhy)
                SELECT Id, AircraftId, Id, ParentId, Position, InstalledAt, HoursWhenInstalled, RemovedAt, RemovedWhy FROM _Stays
                """);
            migrationBuilder.Sql($"""
                INSERT INTO MeterReadings (Id, AircraftId, Meter, Kind, "On", Shown, Total, Source)
                SELECT {NewId}, t.Id, 1, 'Tach', r.value ->> 'on', CAST(r.value ->> 'timeInService' AS TEXT), CAST(r.value ->> 'timeInService' AS TEXT), 'from before'
                FROM _Times t, json_each(t.Times) r
                """);
            migrationBuilder.Sql("""
                UPDATE Aircraft SET
                  TimeInService = (SELECT r.Total FROM MeterReadings r WHERE r.AircraftId = Aircraft.Id ORDER BY CAST(r.Total AS REAL) DESC LIMIT 1),
                  ReadOn = (SELECT max(r."On") FROM MeterReadings r WHERE r.AircraftId = Aircraft.Id),
                  Meters = (SELECT json_array(json_object('number', 1, 'kind', 'Tach', 'fittedOn', min(r."On"), 'offset', 0)) FROM MeterReadings r WHERE r.AircraftId = Aircraft.Id)
                WHERE Id IN (SELECT AircraftId FROM MeterReadings)
                """);
            migrationBuilder.Sql("DROP TABLE _Stays");
            migrationBuilder.Sql("DROP TABLE _Times");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new System.NotSupportedException("The backup made before this migration is the way back.");
    }
}
