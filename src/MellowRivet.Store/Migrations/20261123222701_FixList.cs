using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class FixList : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "TaskKey",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "CarriedMarks",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<Guid>(
                name: "ComponentId",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Correction",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Deferral",
                table: "Discrepancy",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Disposition",
                table: "Discrepancy",
                type: "TEXT",
                nullable: false,
                defaultValue: "Open");

            migrationBuilder.AddColumn<string>(
                name: "Estimate",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Examination",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "How",
                table: "Discrepancy",
                type: "TEXT",
                nullable: false,
                defaultValue: "Visual");

            migrationBuilder.AddColumn<string>(
                name: "MeasuredWords",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Notes",
                table: "Discrepancy",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Pin",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "PlainWords",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "SameAs",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Sounds",
                table: "Discrepancy",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Steps",
                table: "Discrepancy",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.CreateTable(
                name: "OwnerLinks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    TokenHash = table.Column<string>(type: "TEXT", nullable: false),
                    SentTo = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false),
                    Ends = table.Column<string>(type: "TEXT", nullable: false),
                    RevokedAt = table.Column<string>(type: "TEXT", nullable: true),
                    OpenedAt = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OwnerLinks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_OwnerLinks_Inspections_InspectionId",
                        column: x => x.InspectionId,
                        principalTable: "Inspections",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Discrepancy_SameAs",
                table: "Discrepancy",
                column: "SameAs");

            migrationBuilder.CreateIndex(
                name: "IX_OwnerLinks_InspectionId",
                table: "OwnerLinks",
                column: "InspectionId");

            migrationBuilder.CreateIndex(
                name: "IX_OwnerLinks_TokenHash",
                table: "OwnerLinks",
                column: "TokenHash",
                unique: true);

            // What was corrected becomes a correction with its steps; where it was found is known by its task as well.
            migrationBuilder.Sql("""
                UPDATE Discrepancy SET
                    Disposition = CASE WHEN InspectedBy IS NULL THEN 'Done' ELSE 'Inspected' END,
                    Correction = json_object('action', CorrectiveAction, 'kind', CASE WHEN Class = 'Deferrable' THEN 'Deferred' ELSE 'Adjusted' END, 'reference', ''),
                    Steps = CASE WHEN InspectedBy IS NULL THEN json_array(json_object('to', 'Done', 'by', CorrectedBy, 'at', CorrectedAt))
                        ELSE json_array(json_object('to', 'Done', 'by', CorrectedBy, 'at', CorrectedAt), json_object('to', 'Inspected', 'by', InspectedBy, 'at', InspectedAt)) END
                WHERE CorrectiveAction IS NOT NULL;
                """);
            migrationBuilder.Sql("""
                UPDATE Discrepancy SET
                    TaskKey = (SELECT task.SheetKey || '/' || task.Key FROM InspectionTask AS task WHERE task.Id = Discrepancy.TaskId),
                    ComponentId = (SELECT task.ComponentId FROM InspectionTask AS task WHERE task.Id = Discrepancy.TaskId)
                WHERE TaskId IS NOT NULL;
                """);

            migrationBuilder.DropColumn(
                name: "CorrectiveAction",
                table: "Discrepancy");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "OwnerLinks");

            migrationBuilder.DropIndex(
                name: "IX_Discrepancy_SameAs",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "CarriedMarks",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "ComponentId",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Correction",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Deferral",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Disposition",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Estimate",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Examination",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "How",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "MeasuredWords",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Notes",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Pin",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "PlainWords",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "SameAs",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Sounds",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Steps",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "TaskKey",
                table: "Discrepancy");

            migrationBuilder.AddColumn<string>(
                name: "CorrectiveAction",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);
        }
    }
}
