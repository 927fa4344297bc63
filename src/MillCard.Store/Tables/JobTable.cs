using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MillCard.Store.Tables;

/// <summary>Jobs that went to printers, as they stand in the database.</summary>
internal sealed class JobTable : IEntityTypeConfiguration<JobRow>
{
    public void Configure(EntityTypeBuilder<JobRow> job)
    {
        job.ToTable("job");
        job.HasKey(j => j.Id);
        job.Property(j => j.Id).HasColumnName("id").ValueGeneratedNever();
        job.Property(j => j.CardId).HasColumnName("card_id");
        job.Property(j => j.Name).HasColumnName("name");
        job.Property(j => j.How).HasColumnName("how")
            .HasConversion(h => h.ToString().ToLowerInvariant(), h => Enum.Parse<JobHow>(h, true));
        job.Property(j => j.State).HasColumnName("state")
            .HasConversion(s => s.ToString().ToLowerInvariant(), s => Enum.Parse<JobState>(s, true));
        job.Property(j => j.Line).HasColumnName("line");
        job.Property(j => j.Taken).HasColumnName("taken");
        job.Property(j => j.Count).HasColumnName("count");
        job.Property(j => j.Message).HasColumnName("message");
        job.Property(j => j.Heaters).HasColumnName("heaters");
        job.Property(j => j.BeganAt).HasColumnName("began_at");
        job.Property(j => j.SeenAt).HasColumnName("seen_at");
        job.HasIndex(j => new { j.CardId, j.BeganAt });
        job.HasOne<DocumentRow>().WithMany().HasForeignKey(j => j.CardId).OnDelete(DeleteBehavior.Cascade);
    }
}
