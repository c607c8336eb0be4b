using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>A forgotten password is not final; played in two browsers.</summary>
public class AccountTests
{
    [Fact]
    public async Task A_forgotten_password_is_set_anew_by_mail_and_the_other_browser_is_signed_out()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var other = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        other.Open("/preferences");
        other.WaitForText("Where you are signed in");
        other.WaitForText("this one, since");
        Assert.Equal(string.Empty, other.Axe());
        Shot(other, "sign-ins");
        using var ines = new Screen(mortar.Url).Open();
        ines.Click(Containing("a", "I forgot my password"));
        ines.Type("Mail address", "ines@example");
        ines.Click("Send the link");
        ines.WaitForText("name@example.org");
        Assert.Equal(string.Empty, ines.Axe());
        ines.Type("Mail address", "ines@example.org");
        ines.Click("Send the link");
        ines.WaitForText("If there is an account with that address");
        Shot(ines, "forgotten");

        var secret = await mortar.SecretIn(await mortar.MailWith("ines@example.org", "/reset/"), "/reset/");
        ines.Open($"/reset/{secret}");
        ines.Type("New password", "short");
        ines.Click("Set the password");
        ines.WaitForText("Choose a password of at least 10 characters.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "reset");
        ines.Type("New password", "four glazes two kilns");
        ines.Click("Set the password");
        ines.WaitForText("Your password is changed, and every device is signed out.");

        other.Open("/inbox");
        other.WaitForText("I forgot my password"); // it is asked who one is
        ines.Click(Containing("a", "Sign in with the new one"));
        ines.Type("Mail address", "ines@example.org");
        ines.Type("Password", "four glazes two kilns");
        ines.Click("Sign in");
        ines.WaitForWall();
        ines.Open($"/reset/{secret}");
        ines.Type("New password", "something else here");
        ines.Click("Set the password");
        ines.WaitForText("This link does not open any more");
    }
}
