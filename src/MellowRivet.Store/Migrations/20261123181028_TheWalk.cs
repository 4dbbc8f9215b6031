using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class TheWalk : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "WitnessMarks",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "ToolsOut",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "ForeignObjects",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "House",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<string>(
                name: "Looks",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "NotDue",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Sheets",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Tags",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<Guid>(
                name: "ComponentId",
                table: "InspectionTask",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "InspectedAt",
                table: "InspectionTask",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "InspectedBy",
                table: "InspectionTask",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Kind",
                table: "InspectionTask",
                type: "TEXT",
                nullable: false,
                defaultValue: "Inspect");

            migrationBuilder.AddColumn<string>(
                name: "Needs",
                table: "InspectionTask",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<bool>(
                name: "SecondPerson",
                table: "InspectionTask",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "SheetKey",
                table: "InspectionTask",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<Guid>(
                name: "TiedTo",
                table: "InspectionTask",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Why",
                table: "InspectionTask",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "With",
                table: "InspectionTask",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "InspectedAt",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "InspectedBy",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "CableTables",
                table: "Aircraft",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.CreateTable(
                name: "Editions",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    IsDraft = table.Column<bool>(type: "INTEGER", nullable: false),
                    Sheet = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: true),
                    At = table.Column<string>(type: "TEXT", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false),
                    Changes = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Editions", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Shop",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    Rules = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Shop", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Tools",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    IsTorqueWrench = table.Column<bool>(type: "INTEGER", nullable: false),
                    CalibratedUntil = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    LengthInches = table.Column<double>(type: "REAL", nullable: true),
                    IsRetired = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Tools", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Whereabouts",
                columns: table => new
                {
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    TaskId = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Whereabouts", x => new { x.PersonId, x.InspectionId });
                });

            migrationBuilder.CreateIndex(
                name: "IX_Editions_Key_Version",
                table: "Editions",
                columns: new[] { "Key", "Version" },
                unique: true);

            // What was begun before keeps its worksheet, and its tasks the engine or propeller they are about where there is one.
            migrationBuilder.Sql("""
                UPDATE Inspections SET Sheets = json_array(json_object('key', WorksheetKey, 'title', WorksheetKey, 'version', WorksheetVersion, 'hours', CAST(WorksheetHours AS REAL)));
                UPDATE InspectionTask SET SheetKey = (SELECT WorksheetKey FROM Inspections WHERE Inspections.Id = InspectionTask.InspectionId), Why = 'at every inspection';
                UPDATE InspectionTask SET ComponentId = (
                    SELECT MIN(stay.ComponentId) FROM Installations stay JOIN Component part ON part.Id = stay.ComponentId JOIN Inspections job ON job.AircraftId = stay.AircraftId
                    WHERE job.Id = InspectionTask.InspectionId AND stay.RemovedAt IS NULL AND part.Kind = InspectionTask.Book
                    GROUP BY job.Id HAVING COUNT(*) = 1)
                WHERE Book IN ('Engine', 'Propeller');
                """);

            migrationBuilder.DropColumn(
                name: "WorksheetKey",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "WorksheetVersion",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "WorksheetHours",
                table: "Inspections");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Editions");

            migrationBuilder.DropTable(
                name: "Shop");

            migrationBuilder.DropTable(
                name: "Tools");

            migrationBuilder.DropTable(
                name: "Whereabouts");

            migrationBuilder.DropColumn(
                name: "ForeignObjects",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "House",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "Looks",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "NotDue",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "Sheets",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "Tags",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "ComponentId",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "InspectedAt",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "InspectedBy",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "Kind",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "Needs",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "SecondPerson",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "SheetKey",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "TiedTo",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "Why",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "With",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "InspectedAt",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "InspectedBy",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "CableTables",
                table: "Aircraft");

            migrationBuilder.DropColumn(
                name: "WitnessMarks",
                table: "Inspections");

            migrationBuilder.AddColumn<string>(
                name: "WorksheetKey",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.DropColumn(
                name: "ToolsOut",
                table: "Inspections");

            migrationBuilder.AddColumn<string>(
                name: "WorksheetHours",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "0");

            migrationBuilder.AddColumn<int>(
                name: "WorksheetVersion",
                table: "Inspections",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);
        }
    }
}
