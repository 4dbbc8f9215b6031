using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class TypedOnce : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Cures",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.CreateTable(
                name: "Amendments",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Of = table.Column<string>(type: "TEXT", nullable: false),
                    Subject = table.Column<Guid>(type: "TEXT", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Was = table.Column<string>(type: "TEXT", nullable: false),
                    Is = table.Column<string>(type: "TEXT", nullable: true),
                    Why = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false),
                    Along = table.Column<string>(type: "TEXT", nullable: false),
                    Records = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Amendments", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Amendments_AircraftId",
                table: "Amendments",
                column: "AircraftId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Amendments");

            migrationBuilder.DropColumn(
                name: "Cures",
                table: "Inspections");
        }
    }
}
