using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MillCard.Store.Migrations
{
    /// <inheritdoc />
    public partial class RevisionsOfDocuments : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_revision_document_card_id",
                table: "revision");

            migrationBuilder.RenameColumn(
                name: "card_id",
                table: "revision",
                newName: "document_id");

            migrationBuilder.AddForeignKey(
                name: "FK_revision_document_document_id",
                table: "revision",
                column: "document_id",
                principalTable: "document",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_revision_document_document_id",
                table: "revision");

            migrationBuilder.RenameColumn(
                name: "document_id",
                table: "revision",
                newName: "card_id");

            migrationBuilder.AddForeignKey(
                name: "FK_revision_document_card_id",
                table: "revision",
                column: "card_id",
                principalTable: "document",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);
        }
    }
}
