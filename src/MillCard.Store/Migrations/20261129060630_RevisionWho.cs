using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MillCard.Store.Migrations
{
    /// <inheritdoc />
    public partial class RevisionWho : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "who",
                table: "revision",
                type: "text",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "who",
                table: "revision");
        }
    }
}
