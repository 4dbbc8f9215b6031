using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class StaysThatEnded : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Installations_RemovedAt",
                table: "Installations");

            migrationBuilder.CreateIndex(
                name: "IX_Installations_RemovedAt",
                table: "Installations",
                column: "RemovedAt",
                filter: "RemovedAt IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Installations_RemovedAt",
                table: "Installations");

            migrationBuilder.CreateIndex(
                name: "IX_Installations_RemovedAt",
                table: "Installations",
                column: "RemovedAt");
        }
    }
}
