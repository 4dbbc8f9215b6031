using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class OwnHours : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Readings_ComponentId",
                table: "Readings");

            migrationBuilder.DropIndex(
                name: "IX_Inspections_AircraftId",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "Revision",
                table: "Inspections");

            migrationBuilder.RenameColumn(
                name: "Version",
                table: "OpenItems",
                newName: "Changes");

            migrationBuilder.RenameColumn(
                name: "Version",
                table: "Inspections",
                newName: "Changes");

            migrationBuilder.RenameColumn(
                name: "Version",
                table: "InspectionTask",
                newName: "Changes");

            migrationBuilder.RenameColumn(
                name: "Version",
                table: "Discrepancy",
                newName: "Changes");

            migrationBuilder.RenameColumn(
                name: "Revision",
                table: "Aircraft",
                newName: "Changes");

            migrationBuilder.AddColumn<string>(
                name: "OwnTime",
                table: "Readings",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Marks",
                columns: table => new
                {
                    Of = table.Column<string>(type: "TEXT", nullable: false),
                    Changes = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Marks", x => x.Of);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Readings_ComponentId_Kind",
                table: "Readings",
                columns: new[] { "ComponentId", "Kind" });

            migrationBuilder.CreateIndex(
                name: "IX_Postings_At",
                table: "Postings",
                column: "At");

            migrationBuilder.CreateIndex(
                name: "IX_Installations_RemovedAt",
                table: "Installations",
                column: "RemovedAt");

            migrationBuilder.CreateIndex(
                name: "IX_Inspections_AircraftId_State_OpenedOn",
                table: "Inspections",
                columns: new[] { "AircraftId", "State", "OpenedOn" });

            migrationBuilder.CreateIndex(
                name: "IX_DueItems_DiscrepancyId",
                table: "DueItems",
                column: "DiscrepancyId");

            migrationBuilder.CreateIndex(
                name: "IX_Discrepancy_ComponentId",
                table: "Discrepancy",
                column: "ComponentId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Marks");

            migrationBuilder.DropIndex(
                name: "IX_Readings_ComponentId_Kind",
                table: "Readings");

            migrationBuilder.DropIndex(
                name: "IX_Postings_At",
                table: "Postings");

            migrationBuilder.DropIndex(
                name: "IX_Installations_RemovedAt",
                table: "Installations");

            migrationBuilder.DropIndex(
                name: "IX_Inspections_AircraftId_State_OpenedOn",
                table: "Inspections");

            migrationBuilder.DropIndex(
                name: "IX_DueItems_DiscrepancyId",
                table: "DueItems");

            migrationBuilder.DropIndex(
                name: "IX_Discrepancy_ComponentId",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "OwnTime",
                table: "Readings");

            migrationBuilder.RenameColumn(
                name: "Changes",
                table: "OpenItems",
                newName: "Version");

            migrationBuilder.RenameColumn(
                name: "Changes",
                table: "Inspections",
                newName: "Version");

            migrationBuilder.RenameColumn(
                name: "Changes",
                table: "InspectionTask",
                newName: "Version");

            migrationBuilder.RenameColumn(
                name: "Changes",
                table: "Discrepancy",
                newName: "Version");

            migrationBuilder.RenameColumn(
                name: "Changes",
                table: "Aircraft",
                newName: "Revision");

            migrationBuilder.AddColumn<int>(
                name: "Revision",
                table: "Inspections",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateIndex(
                name: "IX_Readings_ComponentId",
                table: "Readings",
                column: "ComponentId");

            migrationBuilder.CreateIndex(
                name: "IX_Inspections_AircraftId",
                table: "Inspections",
                column: "AircraftId");
        }
    }
}
