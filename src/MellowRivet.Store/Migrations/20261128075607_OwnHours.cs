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

            migrationBuilder.AddColumn<string>(
                name: "OwnTime",
                table: "Readings",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Readings_ComponentId_Kind",
                table: "Readings",
                columns: new[] { "ComponentId", "Kind" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Readings_ComponentId_Kind",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "OwnTime",
                table: "Readings");

            migrationBuilder.CreateIndex(
                name: "IX_Readings_ComponentId",
                table: "Readings",
                column: "ComponentId");
        }
    }
}
