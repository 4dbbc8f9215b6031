using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class InspectionRevision : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "Revision",
                table: "Inspections",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Revision",
                table: "Inspections");
        }
    }
}
