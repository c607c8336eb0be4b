using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Data.Mail;
using Mortar.Server.Hosting;
using Mortar.Server.Mail;
using Mortar.Server.StandIns;
using NodaTime;

namespace Mortar.Server.Features.PostRoom;

/// <summary>/api/post-room: the mails that were sent, for everybody at the demo. In real use there is no such page, since mails carry secret links.</summary>
internal static class PostRoomSetup
{
    /// <param name="Fate">What Mortar made of one that was sent to it; <c>null</c> for what it sent itself.</param>
    internal sealed record MailBody(
        string Id,
        string To,
        string From,
        string Subject,
        string Text,
        Instant At,
        string? Fate
    );

    public static void AddPostRoom(this IServiceCollection services, MortarOptions options)
    {
        services.AddSingleton(provider => new MailStops(
            provider.GetRequiredService<IDataProtectionProvider>(),
            () => MortarHost.PublicUrl(provider)
        ));
        services.AddSingleton<PostRoomPort>().AddSingleton<AnswerReader>().AddSingleton<StandIns.PostRoom>();
        if (options.SmtpHost.Length == 0)
        {
            services.AddHostedService<PostRoomServer>();
        }

        services
            .AddScoped<MailQueue>()
            .AddScoped<MailStopCommands>()
            .AddScoped<MailComposer>()
            .AddSingleton<MailLine>()
            .AddHostedService<MailSender>();
    }

    public static void MapPostRoom(this RouteGroupBuilder api)
    {
        api.MapGet("/post-room", List).WithName("ListMails").AllowAnonymous();
    }

    private static Results<Ok<List<MailBody>>, ProblemHttpResult> List(
        StandIns.PostRoom postRoom,
        MortarOptions options
    ) =>
        options.Demo
            ? TypedResults.Ok(
                postRoom
                    .Arrived.Take(200)
                    .Select(mail => new MailBody(
                        mail.Id,
                        mail.To,
                        mail.From,
                        mail.Subject,
                        mail.Text,
                        mail.At,
                        mail.Fate
                    ))
                    .ToList()
            )
            : Problems.NotThere("page");
}
