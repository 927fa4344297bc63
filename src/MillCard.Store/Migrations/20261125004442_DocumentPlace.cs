using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MillCard.Store.Migrations
{
    /// <inheritdoc />
    public partial class DocumentPlace : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_document_kind_name",
                table: "document");

            migrationBuilder.AddColumn<string>(
                name: "place",
                table: "document",
                type: "text",
                nullable: false,
                defaultValue: "shelf");

            migrationBuilder.CreateIndex(
                name: "IX_document_kind_place_name",
                table: "document",
                columns: new[] { "kind", "place", "name" });

            migrationBuilder.AddCheckConstraint(
                name: "document_place",
                table: "document",
                sql: "place in ('shelf', 'archive', 'bin')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_document_kind_place_name",
                table: "document");

            migrationBuilder.DropCheckConstraint(
                name: "document_place",
                table: "document");

            migrationBuilder.DropColumn(
                name: "place",
                table: "document");

            migrationBuilder.CreateIndex(
                name: "IX_document_kind_name",
                table: "document",
                columns: new[] { "kind", "name" });
        }
    }
}
